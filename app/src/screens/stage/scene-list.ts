import { type Scene, findIn } from '@sphalerite/core/model';
import { type DrawInstance, type DrawList, Gatherer, type PlacedLamp, lampsOf } from '@sphalerite/core/scene';
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
  let last: readonly unknown[] = [],
    own: DrawList = [];
  const mine = (): DrawList => {
    const scene = session.scene;
    if (!scene) return [];
    const now = [scene, list(), session.view.chosen.placement, copyInHand()?.copy ?? null] as const;
    // Asked for several times a frame, and of thousands it is not cheap.
    if (!now.every((v, i) => v === last[i])) {
      const all = shownOf(now[0], now[1], now[2]);
      last = now;
      own = now[3] === null ? all : all.filter((i) => i.source.copy === now[3]);
    }
    return own;
  };
  let lit: DrawList | null = null,
    of: Scene | null = null,
    shining: readonly PlacedLamp[] = [];
  /** The lamps that shine, where they do; worked out once for each list. */
  const lamps = (): readonly PlacedLamp[] => {
    const project = session.shown,
      scene = project?.scenes.find((s) => s.id === session.scene?.id);
    if (!project || !scene) return [];
    const now = list();
    if (now !== lit || scene !== of) [lit, of, shining] = [now, scene, lampsOf(project, scene.id, gatherer)];
    return shining;
  };
  return { list, free, mine, lamps, copies: gatherer.copiesOf };
}

export type SceneList = ReturnType<typeof useSceneList>;
