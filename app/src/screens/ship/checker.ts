import type { DeliveryOrder } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';
import {
  type DeliveryFigures,
  type DeliveryFinding,
  type StandingFindings,
  showsSurfaces,
} from '@sphalerite/core/project';
import { sharedPool } from '../../workers/pool';

/** Whether two projects differ in nothing but how they are delivered. */
const sameButDeliveries = (a: Project, b: Project): boolean =>
  (Object.keys(a) as (keyof Project)[]).every((k) => k === 'deliveryProfiles' || a[k] === b[k]);

/** Finds what is worth knowing of deliveries, in a worker; what no option changes is found once and kept. */
export function makeChecker(): (
  project: Project,
  order: DeliveryOrder,
  figures: DeliveryFigures,
  signal: AbortSignal,
) => Promise<DeliveryFinding[]> {
  let last: { readonly project: Project; readonly of: string; readonly standing: StandingFindings } | null = null;
  return async (project, order, figures, signal) => {
    const of = JSON.stringify([order.subject, showsSurfaces(order.profile)]);
    const standing = last?.of === of && sameButDeliveries(last.project, project) ? last.standing : null;
    const found = await sharedPool().run(
      'deliveryChecks',
      (sent) => ({ project: sent.packProject(project), order, figures, standing }),
      { signal },
    );
    last = { project, of, standing: found.standing };
    return found.findings;
  };
}
