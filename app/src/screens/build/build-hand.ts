import { type Vec3, boxFromCells, boxVolume } from '@sphalerite/core/math';
import { composite } from '@sphalerite/core/model';
import { computed, ref, shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { useWayBack } from '../../stores/way-back';
import { targetCell } from '../../tools/geometry';
import type { Pick, ToolEvent } from '../../tools/tool';
import { pickPart, toLattice } from '../../viewport/pick';
import type { ViewPointer } from '../../viewport/view-input';
import { useBuild } from './build-state';
import { useColours } from './colours/colours-state';
import type { Ruler } from './measure-lines';
import type { usePartMatrix } from './picking';
import type { strokeControl } from './strokes/stroke-control';

/** Where the hand is in Build, by pointer or by keys, and what lies under it. */
export function useBuildHand(matrix: ReturnType<typeof usePartMatrix>, strokes: ReturnType<typeof strokeControl>) {
  const session = useSession();
  const build = useBuild();
  const view = useView();
  const colours = useColours();
  const pickNow = shallowRef<Pick | null>(null);
  /** Until the hand comes over the view, or a part was opened from elsewhere, everything stands there in its own colours. */
  const handCame = ref(useWayBack().from !== null);
  const over = ref(false);
  const overHandle = ref(false);
  const ruler = shallowRef<(Ruler & { readonly set: boolean }) | null>(null);
  /** The corner that the keyboard cursor draws from. */
  const anchor = shallowRef<Vec3 | null>(null);
  const lastPointer = shallowRef<ViewPointer | null>(null);

  function pickAt(p: ViewPointer): { event: ToolEvent & { type: 'move' | 'down' | 'up' }; pick: Pick | null } {
    const part = session.part!;
    handCame.value = over.value = true;
    const ray = toLattice(p.ray, matrix.value);
    const pick = pickPart(
      strokes.frozen() ?? build.seen ?? composite(part),
      part,
      ray,
      build.strokeTarget?.takes('paint') ? null : build.guide,
    );
    pickNow.value = pick;
    const cell = pick ? (targetCell(build.card.verb, pick) ?? pick.cell) : null;
    view.cursor = cell ? cell.join(', ') : '';
    return { event: { type: 'move', ray, pick, shift: p.shift, ctrl: p.ctrl }, pick };
  }

  function pickColour(): void {
    if (lastPointer.value && session.part) pickAt(lastPointer.value);
    const value = pickNow.value && !pickNow.value.floor ? build.seen?.get(...pickNow.value.cell) : 0;
    if (value) build.byte = value;
  }
  const cursorBox = computed(() => (anchor.value && build.cursor ? boxFromCells(anchor.value, build.cursor) : null));
  watch([cursorBox, () => build.cursor], () => {
    view.cursor = build.cursor ? build.cursor.join(', ') : '';
    view.measure = cursorBox.value ? `box ${cursorBox.value.size.join(' × ')} = ${boxVolume(cursorBox.value)}` : '';
  });
  const hoverCell = computed<Vec3 | null>(() => {
    const pick = pickNow.value;
    if (!over.value || !pick || strokes.output.value.active || build.card.verb !== 'add') return null;
    return targetCell('add', pick);
  });
  /** The name of the colour under the pointer: eyes alone should not have to tell. */
  const underHand = computed(() => {
    const pick = pickNow.value;
    const byte = over.value && pick && !pick.floor ? build.seen?.get(...pick.cell) : 0;
    return byte ? (colours.swatchOf(byte)?.name ?? `swatch ${byte}`) : '';
  });
  return {
    pickNow,
    handCame,
    over,
    overHandle,
    ruler,
    anchor,
    lastPointer,
    cursorBox,
    hoverCell,
    underHand,
    pickAt,
    pickColour,
  };
}
export type BuildHand = ReturnType<typeof useBuildHand>;
