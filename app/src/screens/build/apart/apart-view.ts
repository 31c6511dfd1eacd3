import { type Vec3, mapVec, transformPoint } from '@sphalerite/core/math';
import { find, sideSuffix } from '@sphalerite/core/model';
import { type TwinPair, cellsByRegion } from '@sphalerite/core/project';
import { type Ref, computed } from 'vue';
import type { ViewLabel } from '../../../shell/screen';
import { useSession } from '../../../stores/session';
import type { Mark, Tone } from '../../../viewport/overlay';
import type { RegionChoice } from './region-choice';
import type { TakingApart } from './taking-apart';

const TONES: readonly Tone[] = ['verdigris', 'x', 'z', 'y'];
/** Names shown in the view at once. */
const MOST_NAMES = 9;

/** The regions as they are tinted and named in the view. */
export function useApartView(
  { hand, hovered, part }: RegionChoice,
  { pieces }: TakingApart,
  pairs: Ref<readonly TwinPair[]>,
  active: Ref<boolean>,
) {
  const session = useSession();
  const meant = computed(() => hovered.value ?? hand.value);
  const marks = computed<Mark[]>(() => {
    if (!active.value || !part.value) return [];
    const shown = find(session.inPaletteColours?.parts ?? [], part.value.id) ?? part.value;
    const now = cellsByRegion(shown);
    const filled = (shown.regions?.list ?? []).filter((r) => !now.get(r.byte)!.isEmpty);
    const list = filled.map((r, i): Mark => {
      const on = r.byte === meant.value;
      return { set: now.get(r.byte)!, tone: on ? 'honey' : TONES[i % TONES.length]!, fill: on ? 0.6 : 0.32 };
    });
    const differ = pairs.value.find((p) => p.other.id === shown.id)?.differ;
    if (differ && !differ.isEmpty) list.push({ set: differ, tone: 'danger', fill: 0.6, through: true });
    return list;
  });
  /** Names where the pieces are; of many only the one that is meant, for they would hide what they name. */
  function labels(toWorld: readonly number[]): ViewLabel[] {
    const p = pieces.value;
    if (!p) return [];
    const named = p.pieces.filter((o) =>
      meant.value === null ? o.region !== 0 && p.pieces.length <= MOST_NAMES : o.region === meant.value,
    );
    return named.map((o) => {
      const box = o.cells.tight!;
      const middle = mapVec(box.min, (m, i) => m + box.size[i]! / 2);
      return { at: transformPoint(toWorld, middle), text: o.name + sideSuffix(o.side), tone: 'ink' };
    });
  }
  /** Where the pieces would turn. */
  const joints = computed<readonly Vec3[]>(() => {
    const p = pieces.value;
    return p ? p.pivots.filter((_, i) => i !== p.root).map((h) => [h[0] / 2, h[1] / 2, h[2] / 2]) : [];
  });
  return { marks, labels, joints };
}
