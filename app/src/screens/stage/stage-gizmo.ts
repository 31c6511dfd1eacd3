import { findIn, worldOfPlacement } from '@sphalerite/core/model';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { type GizmoFrame, WORLD_AXES, amountText } from '../../tools/gizmo';
import { FREE_STEPS, useGizmo } from '../shared/gizmo-control';
import { byGizmo, movable, moveChosen } from './moving';
import { useStage } from './stage-state';

/** The gizmo on what is chosen in the scene. */
export function useStageGizmo() {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  const chosen = (): readonly string[] => session.view.chosen.placement;
  const frame = (): GizmoFrame | null => {
    const project = session.shown,
      scene = project?.scenes.find((s) => s.id === session.scene?.id),
      id = session.hand.placement;
    if (!scene || !id || stage.placing || !session.writable || !findIn(scene.placements, id)) return null;
    if (movable(scene, chosen()).length === 0) return null;
    return { at: worldOfPlacement(scene, id).t, axes: WORLD_AXES, modes: [stage.handle], even: true };
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
      moveChosen(session.scene!, chosen(), byGizmo(held!, amount, stage.together), done);
    },
    cancel() {
      session.preview = null;
      view.measure = '';
    },
  });
}
