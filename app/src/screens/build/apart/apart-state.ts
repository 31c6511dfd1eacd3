import { composite, type Side } from '@sphalerite/core/model';
import { takeApartEdit } from '@sphalerite/core/project';
import { mirrorShare, splitByColour, splitByPatches, splitByPieces, splitByPlane } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import type { Mark, Tone } from '../../../viewport/overlay';
import { useBuild } from '../build-state';
import { useColours } from '../colours/colours-state';
import { useSelection } from '../selection-state';

/** A part in the making; cells of earlier ones win. */
export interface Plan {
  readonly key: number;
  readonly name: string;
  readonly side: Side;
  readonly cells: CellSet;
}

/** More pieces than this are most likely not meant. */
const MOST = 64;
/** How alike two pieces must be to be taken for a left and a right one. */
const ALIKE = 0.8;
const TONES: readonly Tone[] = ['verdigris', 'x', 'z', 'y'];

/** The pieces that the part on the bench is to be taken apart into, before it is done. */
export const useApart = defineStore('apart', () => {
  const session = useSession();
  const build = useBuild();
  const colours = useColours();
  const selection = useSelection();
  const notices = useNotices();
  const plans = shallowRef<readonly Plan[]>([]);
  const chosen = ref(-1);
  const plug = ref(1);
  const bones = ref(true);
  const keepWhole = ref(true);
  let next = 1;
  watch(() => session.view.part, () => {
    plans.value = [];
    chosen.value = -1;
  });

  const free = computed(() => {
    const seen = build.seen;
    if (!seen) return null;
    return plans.value.reduce((left, p) => left.minus(p.cells), CellSet.filled(seen));
  });
  /** Adds pieces; those that mirror one another across the middle become a left and a right one of one name. */
  function add(list: readonly { name: string; cells: CellSet }[]): void {
    const open = free.value;
    if (!open) return;
    const fresh = list.map((p) => ({ ...p, cells: p.cells.intersect(open) })).filter((p) => !p.cells.isEmpty);
    if (fresh.length === 0) {
      notices.say('These cubes belong to a piece already, or there are none.');
      return;
    }
    if (plans.value.length + fresh.length > MOST) {
      notices.say(`That would make ${plans.value.length + fresh.length} pieces; ${MOST} are the most at once. Tidy loose cubes up first, or choose another way.`, { kind: 'error' });
      return;
    }
    const all: Plan[] = [...plans.value, ...fresh.map((p) => ({ key: next++, name: p.name, side: 'centre' as Side, cells: p.cells }))];
    for (let i = 0; i < all.length; i++) {
      for (let j = i + 1; j < all.length; j++) {
        const a = all[i]!, b = all[j]!;
        if (a.side !== 'centre' || b.side !== 'centre' || mirrorShare(a.cells, b.cells, 0, build.middles[0]) < ALIKE) continue;
        // Her own left is +X.
        const left = a.cells.tight!.min[0] > b.cells.tight!.min[0];
        all[i] = { ...a, side: left ? 'left' : 'right' };
        all[j] = { ...b, name: a.name, side: left ? 'right' : 'left' };
      }
    }
    plans.value = all;
  }
  const change = (key: number, more: Partial<Plan>): void => {
    const before = plans.value.find((p) => p.key === key);
    // A pair has one name: whoever renames one means both.
    const twin = more.name !== undefined && before && before.side !== 'centre' ? plans.value.find((p) => p.name === before.name && p.key !== key && p.side !== 'centre') : undefined;
    plans.value = plans.value.map((p) => (p.key === key ? { ...p, ...more } : p === twin ? { ...p, name: more.name! } : p));
  };
  const drop = (key: number): void => {
    plans.value = plans.value.filter((p) => p.key !== key);
  };

  const bySelection = (): void => {
    if (!selection.selected) {
      notices.say('Select the cubes of a piece first: with a Select tool, or a click of Select piece or Select hue.');
      return;
    }
    add([{ name: `Piece ${plans.value.length + 1}`, cells: selection.selected }]);
    selection.set(null);
  };
  const byPieces = (): void => {
    if (build.seen) add(splitByPieces(build.seen).slice(1).map((cells, i) => ({ name: `Piece ${i + 1}`, cells })));
  };
  const byColours = (): void => {
    if (build.seen) add(splitByColour(build.seen).slice(1).map(({ byte, cells }) => ({ name: colours.swatchOf(byte)?.name ?? `Swatch ${byte}`, cells })));
  };
  const byPatches = (): void => {
    if (build.seen) add(splitByPatches(build.seen).slice(1).map(({ byte, cells }) => ({ name: colours.swatchOf(byte)?.name ?? `Swatch ${byte}`, cells })));
  };
  const byLayers = (): void => {
    const part = session.part;
    if (!part) return;
    const seen = composite(part);
    // What shows of each layer above the lowest.
    let above = new CellSet({ min: [0, 0, 0], size: [0, 0, 0] });
    const found: { name: string; cells: CellSet }[] = [];
    for (const l of part.layers.slice(1).filter((o) => !o.hidden).reverse()) {
      const cells = CellSet.filled(l.grid).minus(above).intersect(CellSet.filled(seen));
      above = above.union(cells);
      found.push({ name: l.name, cells });
    }
    add(found.reverse());
  };
  const byPlane = (): void => {
    const g = build.guide;
    if (!g || !build.seen) {
      notices.say('Put the guide plane where the cut goes (Q, then [ and ] or its handle), then choose this again.');
      return;
    }
    const [low, high] = splitByPlane(build.seen, g.axis, Math.floor(g.at / 2));
    const open = free.value!;
    const [a, b] = [low.intersect(open), high.intersect(open)];
    add([{ name: `Piece ${plans.value.length + 1}`, cells: a.count <= b.count ? a : b }]);
  };
  function take(): void {
    const part = session.part;
    if (!part || plans.value.length === 0) return;
    const done = session.apply(takeApartEdit, {
      part: part.id, pieces: plans.value.map(({ name, side, cells }) => ({ name, side, cells })), rest: part.name, plug: plug.value, bones: bones.value, keepWhole: keepWhole.value,
    }, (p) => ({ part: p.parts.find((o) => !session.project!.parts.some((b) => b.id === o.id))?.id ?? null, layer: null }));
    if (done) plans.value = [];
  }

  const active = computed(() => colours.tab === 'apart');
  const marks = computed<Mark[]>(() => (active.value
    ? plans.value.map((p, i) => ({ set: p.cells, tone: p.key === chosen.value ? 'honey' : TONES[i % TONES.length]!, fill: p.key === chosen.value ? 0.6 : 0.32 })) : []));
  return { plans, chosen, plug, bones, keepWhole, free, marks, active, change, drop, bySelection, byPieces, byColours, byPatches, byLayers, byPlane, take };
});
