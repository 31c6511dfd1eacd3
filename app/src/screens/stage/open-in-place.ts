import { findIn, placementName } from '@sphalerite/core/model';
import { ownPartsEdit } from '@sphalerite/core/project';
import { Gatherer, type InstanceSource } from '@sphalerite/core/scene';
import type { Spot } from '../../stores/in-place';
import { useSession } from '../../stores/session';
import { useWayBack } from '../../stores/way-back';

/** Opens a part in Build where it stands in the scene, among all that stands there. */
export function openInPlace(source: InstanceSource): void {
  const session = useSession(),
    scene = session.scene;
  if (!scene || source.part === null || !session.project?.parts.some((p) => p.id === source.part)) return;
  const list =
    (g: Gatherer): Spot['list'] =>
    (project) =>
      project.scenes.some((s) => s.id === scene.id) ? g.gather(project, { of: 'scene', scene: scene.id }) : [];
  const placementOf = (at: Spot['at']) => findIn(session.scene?.placements ?? [], at.path[0] ?? '');
  void useWayBack().open(source.part, {
    list: list(new Gatherer()),
    shown: list(new Gatherer()),
    at: source,
    trail(at) {
      const p = placementOf(at);
      return [session.scene?.name ?? '', ...(p ? [placementName(session.project!, p)] : [])];
    },
    own(at) {
      const p = placementOf(at);
      if (p?.shows.kind !== 'part') return null;
      session.apply(ownPartsEdit, { scene: scene.id, placements: [p.id] });
      const now = placementOf(at);
      return now?.shows.kind === 'part' ? now.shows.part : null;
    },
  });
}
