import { findIn, worldOfPlacement } from '@sphalerite/core/model';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { type GizmoFrame, WORLD_AXES, amountText } from '../../tools/gizmo';
import { FREE_STEPS, useGizmo } from '../shared/gizmo-control';
import { anchorOf, copyInHand } from './copy-in-hand';
import type { useLamps } from './lamp-hand';
import { byGizmo, movable, moveInHand } from './moving';
import type { SceneList } from './scene-list';
import { useStage } from './stage-state';

type Lamps = ReturnType<typeof useLamps>;

/** The gizmo on what is chosen in the scene, or on a copy by itself. */
export function useStageGizmo({ list, copies }: SceneList, lamps: Lamps) {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  const chosen = (): readonly string[] => session.view.chosen.placement;
  const frame = (): GizmoFrame | null => {
    const lit = stage.placing || stage.stamp || !session.writable || stage.handle === 'frame' ? null : lamps.at();
    if (lit) return { at: lit, axes: WORLD_AXES, modes: [stage.handle as 'move' | 'turn' | 'scale'], even: true };
    const project = session.shown,
      scene = project?.scenes.find((s) => s.id === session.scene?.id),
      id = session.hand.placement;
    if (!scene || !id || stage.placing || stage.stamp || !session.writable || !findIn(scene.placements, id))
      return null;
    if (stage.handle === 'frame' || movable(scene, chosen()).length === 0) return null;
    const copy = copyInHand();
    // Asked for its list, it knows where copies stand.
    const at = copy ? list() && anchorOf(copy, copies(copy.repeat.id)) : worldOfPlacement(scene, id).t;
    return at && { at, axes: WORLD_AXES, modes: [stage.handle], even: true };
  };
  let held: GizmoFrame | null = null;
  return useGizmo({
    frame,
    steps: () => ({
      ...FREE_STEPS,
      move: [stage.step, stage.step, stage.step],
      turn: stage.turn,
      fineTurn: 1,
    }),
    begin() {
      held = frame();
      return held !== null;
    },
    change(amount, done) {
      view.measure = done ? '' : amountText(amount);
      if (lamps.inHand()) return lamps.change(held!, amount, done);
      moveInHand(byGizmo(held!, amount, stage.together), done, held!.at);
    },
    cancel() {
      session.preview = null;
      view.measure = '';
    },
  });
}
