import type { Extent } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import { gather, listExtent } from '@sphalerite/core/scene';
import type { ShipCounts } from '@sphalerite/core/files';
import { onScopeDispose, shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';
import { sharedPool } from '../../workers/pool';

const GLB = { exporter: 'glb', subject: { of: 'rig' }, options: {} } as const;

/** What the project would ship as, counted in a worker a little after the hand rests. */
export function useShipCounts() {
  const session = useSession();
  const counts = shallowRef<ShipCounts | null>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const stop = watch(
    () => session.project,
    (p) => {
      clearTimeout(timer);
      if (!p) return;
      timer = setTimeout(() => {
        void sharedPool()
          .run('plan', (sent) => ({ project: sent.packProject(p), order: GLB }))
          .then(
            (c) => {
              if (session.project === p) counts.value = c.counts as unknown as ShipCounts;
            },
            () => undefined,
          );
      }, 700);
    },
    { immediate: true },
  );
  onScopeDispose(() => {
    stop();
    clearTimeout(timer);
  }, true);
  return counts;
}

const extents = new WeakMap<Project, Extent | null>();
/** The box around everything at rest, in project units; null when all is empty. */
export function extentOf(p: Project): Extent | null {
  let known = extents.get(p);
  if (known === undefined) {
    known = listExtent(gather(p, { of: 'rig' }));
    extents.set(p, known);
  }
  return known;
}

/** The live meter: what is, against the target sheet where that says something. */
export function targetText(p: Project, counts: ShipCounts | null, cell: number): string {
  const { target } = p;
  const e = extentOf(p);
  const height = e ? e.hi[1] - e.lo[1] : 0;
  const part = (label: string, now: string, most: number, unit = ''): string[] =>
    most > 0 ? [`${label} ${now} / ${most.toLocaleString('en')}${unit}`] : [];
  return [
    `height ${(height * p.metresPerUnit).toFixed(2)}${target.height > 0 ? ` / ${target.height.toFixed(2)}` : ''} m`,
    ...part('tris', (counts?.triangles ?? 0).toLocaleString('en'), target.faces),
    ...part('bones', String(p.rig.bones.length), target.bones),
    `1 cube = ${(p.metresPerUnit * cell * 100).toFixed(1)} cm`,
  ].join(' · ');
}
