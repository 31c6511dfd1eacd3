import { type Vec3, sub } from '@sphalerite/core/math';
import { type Project, inColourway } from '@sphalerite/core/model';
import type { Palette, Swatch } from '@sphalerite/core/palette';
import { type ComputedRef, computed, ref, shallowRef, watch } from 'vue';
import { onOtherProject } from '../../../stores/project-settings';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import { type Pose } from '@sphalerite/core/rig';
import { gatherRig } from '@sphalerite/core/scene';
import type { Beside } from '../../../viewport/viewport';
import { extentOf } from '../../../stores/ship-counts';

/** One look of the whole project, as it stands beside the others. */
export interface Look {
  readonly id: string | null;
  readonly name: string;
  readonly shift: Vec3;
  readonly inHand: boolean;
}
/** Room between looks: a share of the width, and units. */
const ROOM = 1.06;
const GAP = 2;
/** Units between looks of a project without cubes. */
const EMPTY_STEP = 20;

/** All colourways, or two palettes, side by side in the view. */
export function useLooks(palette: ComputedRef<Palette | null>) {
  const session = useSession();
  const view = useView();
  const sideBySide = ref(false);
  /** A palette to look at beside the one there is: what each byte would look like. */
  const compare = shallowRef<readonly Swatch[] | null>(null);
  /** The way across the view, level, as a direction of X and Z. */
  const across = shallowRef<readonly [number, number]>([1, 0]);
  onOtherProject(() => {
    compare.value = null;
    sideBySide.value = false;
  });
  /** From one look to the next: in a row across the view, whichever way it looked when they were set out. */
  function stepFor(p: Project): Vec3 {
    const e = extentOf(p);
    const [dx, dz] = across.value;
    const wide = e ? (e.hi[0] - e.lo[0]) * Math.abs(dx) + (e.hi[2] - e.lo[2]) * Math.abs(dz) : 0;
    const step = e ? Math.ceil(wide * ROOM + GAP) : EMPTY_STEP;
    return [step * dx, 0, step * dz];
  }
  /** All looks from left to right; the one in hand stands where the work is, the others are shifted. */
  const looks = computed<Look[]>(() => {
    const p = session.inPaletteColours;
    if (!p || (!sideBySide.value && !compare.value)) return [];
    const step = stepFor(session.project ?? p);
    const at = (k: number): Vec3 => [k * step[0], 0, k * step[2]];
    if (compare.value)
      return [
        { id: session.view.colourway, name: 'before', shift: at(0), inHand: true },
        { id: 'compare', name: 'after', shift: at(1), inHand: false },
      ];
    const ids = [null, ...p.colourways.map((c) => c.id)];
    const here = Math.max(0, ids.indexOf(session.view.colourway));
    return ids.map((id, i) => ({
      id,
      name: p.colourways.find((c) => c.id === id)?.name ?? 'Palette',
      shift: at(i - here),
      inHand: i === here,
    }));
  });
  /** The looks that are drawn beside the project: what stands there, in other colours. */
  function besides(p: Project, seen: Project, pose: Pose): Beside[] {
    return looks.value
      .filter((l) => !l.inHand)
      .map((l) => {
        const { palettes } = l.id === 'compare' ? compared(p) : inColourway(p, l.id);
        return { list: gatherRig({ ...seen, palettes }, { pose }), shift: l.shift, moment: false };
      });
  }
  function compared(p: Project): Project {
    const palettes = p.palettes.map((o) =>
      o.id === palette.value?.id && compare.value ? { ...o, swatches: compare.value } : o,
    );
    return { ...p, palettes };
  }
  /** Takes a colourway in hand; side by side, the view goes along so that nothing seems to move. */
  function activate(id: string | null): void {
    const there = looks.value.find((l) => l.id === id);
    session.choose({ colourway: id });
    const v = view.viewport;
    if (!there || !v || !sideBySide.value) return;
    v.camera.target = sub(v.camera.target, there.shift);
    v.invalidate();
  }
  watch(
    () => sideBySide.value || compare.value !== null,
    (on) => {
      const right = view.viewport?.camera.right;
      if (on && right) {
        const n = Math.hypot(right[0], right[2]) || 1;
        across.value = [right[0] / n, right[2] / n];
      }
      requestAnimationFrame(() => view.viewport?.frame());
    },
    { flush: 'sync' },
  );
  return { sideBySide, compare, looks, besides, activate };
}
