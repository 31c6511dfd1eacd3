import { findIn } from '@sphalerite/core/model';
import { type DrawInstance, type DrawList, Gatherer } from '@sphalerite/core/scene';
import { useSession } from '../../stores/session';
import { copyInHand } from './copy-in-hand';
import { shownOf } from './placing';
import { useStage } from './stage-state';

/** What stands in the scene in hand, and what of it is chosen. */
export function useSceneList() {
  const session = useSession();
  const stage = useStage();
  const gatherer = new Gatherer();
  const list = (): DrawList => {
    const project = session.shown,
      scene = session.scene;
    if (!project || !scene || !project.scenes.some((s) => s.id === scene.id)) return [];
    return gatherer.gather(project, { of: 'scene', scene: scene.id });
  };
  /** What can be taken hold of. */
  const free = (i: DrawInstance): boolean => {
    const p = session.scene && findIn(session.scene.placements, i.source.path[0] ?? '');
    const layer = p && session.scene!.layers.find((l) => l.id === p.layer);
    return Boolean(layer && !layer.locked && (stage.alone === null || stage.alone === layer.id));
  };
  const mine = (): DrawList => {
    const scene = session.scene;
    if (!scene) return [];
    const all = shownOf(scene, list(), session.view.chosen.placement),
      copy = copyInHand();
    return copy ? all.filter((i) => i.source.copy === copy.copy) : all;
  };
  return { list, free, mine, copies: gatherer.copiesOf };
}

export type SceneList = ReturnType<typeof useSceneList>;
