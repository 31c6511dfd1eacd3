import { type Part, type Region, find } from '@sphalerite/core/model';
import { addRegionsEdit, cellsByRegion, changeRegionEdit, dropRegionEdit } from '@sphalerite/core/project';
import type { NamedCells } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { computed, ref, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';

export const NO_CELLS = new CellSet({ min: [0, 0, 0], size: [0, 0, 0] });
export const piece = (name: string, cells: CellSet): NamedCells => ({ name, side: 'centre', cells });
/** A whole that was kept aside is called so; what is left of it is not. */
export const nameOfRest = (whole: string): string => whole.replace(/, whole( \d+)?$/, '');

/** The regions of the part on the bench, and which of them is meant. */
export function useRegionChoice() {
  const session = useSession();
  const build = useBuild();
  /** The region in hand: strokes with Paint give cubes to it. */
  const hand = ref<number | null>(null);
  /** The region that is pointed at in the list. */
  const hovered = ref<number | null>(null);
  /** Whether strokes go to regions instead of into the cubes. */
  const painting = ref(false);
  const part = computed<Part | null>(() => session.part);
  const regions = computed<readonly Region[]>(() => part.value?.regions?.list ?? []);
  const cells = computed(() => (part.value ? cellsByRegion(part.value) : new Map<number, CellSet>()));
  const free = computed(() => cells.value.get(0) ?? NO_CELLS);
  /** Parts that were taken from this whole before. */
  const earlier = computed(() => session.project?.parts.filter((p) => p.origin?.whole === part.value?.id) ?? []);
  /** The whole that this part was taken from, while it is kept aside. */
  const whole = computed(() => find(session.project?.parts ?? [], part.value?.origin?.whole ?? null) ?? null);
  watch(
    () => session.hand.part,
    () => {
      hand.value = null;
      hovered.value = null;
    },
  );

  const nextName = (): string => `Piece ${regions.value.length + 1}`;
  /** New regions; with `taken` also of cubes that belong to another. */
  function add(list: readonly NamedCells[], taken = false): void {
    if (!part.value) return;
    const before = new Set(regions.value.map((r) => r.byte));
    if (!session.apply(addRegionsEdit, { part: part.value.id, pieces: list, half: build.middles[0], taken })) return;
    const fresh = regions.value.filter((r) => !before.has(r.byte));
    if (painting.value && fresh.length === 1) hand.value = fresh[0]!.byte;
  }
  function change(byte: number, more: { name?: string; side?: Region['side'] }): void {
    if (part.value) session.apply(changeRegionEdit, { part: part.value.id, region: byte, ...more });
  }
  function drop(byte: number): void {
    if (hand.value === byte) hand.value = null;
    if (part.value) session.apply(dropRegionEdit, { part: part.value.id, region: byte });
  }
  return { hand, hovered, painting, part, regions, cells, free, earlier, whole, nextName, add, change, drop };
}
export type RegionChoice = ReturnType<typeof useRegionChoice>;
