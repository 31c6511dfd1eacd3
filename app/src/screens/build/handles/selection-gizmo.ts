import {
  AXES,
  type Mat4,
  type Vec3,
  add,
  length,
  mapVec,
  normalize,
  transformDirection,
  transformPoint,
  withAxis,
} from '@sphalerite/core/math';
import type { Ref } from 'vue';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import { type GizmoFrame, amountText } from '../../../tools/gizmo';
import { FREE_STEPS, useGizmo } from '../../shared/gizmo-control';
import { useSelection } from '../selection/selection-state';
import { counted } from '../../../words';

/** The gizmo that moves what is selected, in whole cubes. */
export function selectionGizmo(matrix: Ref<Mat4>) {
  const session = useSession();
  const selection = useSelection();
  const view = useView();
  /** Where what floats was when it was taken hold of. */
  let start: Vec3 | null = null;

  const middle = (): Vec3 | null => {
    const b = selection.active ? selection.box : null;
    return b && mapVec(b.min, (m, i) => m + b.size[i]! / 2);
  };
  const ways = (): Vec3[] => AXES.map((a) => transformDirection(matrix.value, withAxis([0, 0, 0], a, 1)));
  const cubes = (): Vec3 => ways().map(length) as unknown as Vec3;
  return useGizmo({
    frame() {
      const at = middle();
      if (!at) return null;
      const axes = ways().map(normalize) as unknown as GizmoFrame['axes'];
      return { at: transformPoint(matrix.value, at), axes, modes: ['move'] };
    },
    steps: () => ({ ...FREE_STEPS, move: cubes(), unit: cubes() }),
    reach: () => (Math.max(...(selection.box?.size ?? [0])) / 2) * (session.part?.cell ?? 1),
    begin(p) {
      const title = `${p.alt ? 'Copy' : 'Move'} ${counted(selection.count, 'cubes')}`;
      if (!selection.float(title, p.alt)) return false;
      start = selection.floating!.by;
      return true;
    },
    change(amount, done) {
      if (amount.kind !== 'move' || !start) return;
      const unit = cubes();
      selection.moveTo(
        add(
          start,
          mapVec(amount.along, (v, i) => Math.round(v / unit[i]!)),
        ),
      );
      view.measure = done ? '' : `move ${amountText(amount, unit)}`;
    },
    cancel() {
      view.measure = '';
    },
  });
}
