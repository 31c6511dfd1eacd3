import { AXES, type Axis, type Vec3 } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import type { Swatch } from '@sphalerite/core/palette';
import { placeCellsEdit } from '@sphalerite/core/project';
import { cutOut, mirrorSet, mirroredGrid, movedGrid, repeatSteps, turnedGrid } from '@sphalerite/core/sculpt';
import { CellSet, VoxelGrid } from '@sphalerite/core/voxel';
import { computed, shallowRef, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import type { ChosenCells } from './chosen-cells';

/** A piece in the air: nothing of the project has changed yet. */
export interface Floating {
  /** The part and layer it was lifted from or pasted into. */
  readonly part: string;
  readonly layer: string;
  readonly title: string;
  /** Cells to clear when it is put down; null for copies and pastes. */
  readonly clear: CellSet | null;
  readonly grid: VoxelGrid;
  /** How far it has been moved since it was lifted. */
  readonly by: Vec3;
  /** Swatches that it brings into the palette when it is put down. */
  readonly swatches?: readonly Swatch[];
}
/** Copies in a row or in a ring, adjustable until they are set. */
export interface Repeat {
  readonly count: number;
  readonly step: Vec3;
  readonly ring: Axis | null;
  /** Whether the empty cells of the piece are repeated too, as the recess of a window. */
  readonly hollows: boolean;
}
export type PlaceArgs = Parameters<typeof placeCellsEdit.run>[1];

/** Copies of pieces as the live symmetry, the live ring and a repeat ask for them. */
export function usePieceCopies() {
  const build = useBuild();
  /** Pieces with their turned copies. */
  function spun(put: readonly VoxelGrid[]): VoxelGrid[] {
    const r = build.radial;
    if (!r) return [...put];
    return Array.from({ length: r.count }, (_, k) => put.map((g) => (k === 0 ? g : turnedGrid(g, r, k))))
      .flat()
      .filter((g): g is VoxelGrid => g !== null);
  }
  /** The piece on the other sides too; one that lies across a mirror plane is moved as one. */
  function images(grid: VoxelGrid, from: CellSet | null): { put: VoxelGrid[]; clear: CellSet | null } {
    let put = [grid],
      clear = from;
    for (const a of AXES) {
      const h = build.mirror[a];
      if (h === null) continue;
      const image = clear && mirrorSet(clear, a, h);
      if (clear && image && !clear.intersect(image).isEmpty) continue;
      put = put.concat(put.map((g) => mirroredGrid(g, a, h)));
      if (clear && image) clear = clear.union(image);
    }
    return { put: spun(put), clear };
  }
  function repeated(piece: VoxelGrid, r: Repeat): VoxelGrid[] {
    if (r.ring === null) return repeatSteps(r.count, r.step).map((s) => movedGrid(piece, s));
    const a = r.ring;
    const radial = {
      axis: a,
      count: r.count,
      centre: [build.middles[((a + 1) % 3) as Axis], build.middles[((a + 2) % 3) as Axis]] as const,
    };
    return Array.from({ length: r.count - 1 }, (_, k) => turnedGrid(piece, radial, k + 1)).filter(
      (g): g is VoxelGrid => g !== null,
    );
  }
  return { spun, images, repeated };
}

const NO_CELLS = new CellSet({ min: [0, 0, 0], size: [0, 0, 0] });
/** Cells as a grid of cubes, to be copied like one. */
function gridOfSet(set: CellSet | null): VoxelGrid | null {
  const tight = set?.tight;
  return tight ? VoxelGrid.empty(tight).edit((d) => d.fillSet(set!, 1)) : null;
}

/** What floats or repeats, and the edit that would set it down. */
export function usePlacing(chosen: ChosenCells) {
  const session = useSession();
  const build = useBuild();
  const copies = usePieceCopies();
  const floating = shallowRef<Floating | null>(null);
  const repeat = shallowRef<Repeat | null>(null);
  // At once: what floats after an edit must not be taken for something that floated before it.
  watch(
    () => session.project,
    (now, before) => {
      if (now && now !== before) floating.value = null;
    },
    { flush: 'sync' },
  );

  const target = () => ({ part: session.part!.id, layer: session.layer!.id, limit: build.limit });
  /** What is selected, else what was just made, as cubes of the layer in hand. */
  function source(): VoxelGrid | null {
    const made = chosen.made.value;
    const set = chosen.selected.value ?? made?.set ?? null;
    return set && session.layer ? cutOut(session.layer.grid, set) : null;
  }
  /** The empty cells that belong to what is repeated: those that the last change emptied, or those in the box of the selection. */
  function hollows(): CellSet | null {
    const set = chosen.selected.value;
    if (!set) return chosen.emptied.value;
    const tight = set.tight;
    return tight && build.seen ? CellSet.filled(build.seen, tight).inverted(tight) : null;
  }
  function floatArgs(f: Floating): PlaceArgs {
    const { put, clear } = copies.images(f.grid, f.clear);
    const swatches = f.swatches ?? [];
    return { ...target(), layer: f.layer, clear, put, title: f.title, grow: build.grows, swatches };
  }
  function repeatArgs(r: Repeat): PlaceArgs | null {
    const piece = source();
    const everywhere = (g: VoxelGrid): VoxelGrid[] => copies.repeated(g, r).flatMap((c) => copies.images(c, null).put);
    const empty = r.hollows ? gridOfSet(hollows()) : null;
    if (!piece && !empty) return null;
    const clear = empty && everywhere(empty).reduce((all, g) => all.union(CellSet.filled(g)), NO_CELLS);
    return { ...target(), clear, put: piece ? everywhere(piece) : [], title: `Repeat ${r.count} times`, grow: true };
  }
  const args = computed<PlaceArgs | null>(() => {
    const f = floating.value,
      r = repeat.value,
      part = session.part;
    if (!part || !session.layer || (f && f.part !== part.id)) return null;
    return f ? floatArgs(f) : r && repeatArgs(r);
  });
  /** The last arguments that fitted the part: should another part be chosen, what floats is set down where it belongs. */
  let held: PlaceArgs | null = null;
  watch(
    args,
    (a) => {
      if (a || !floating.value) held = a;
    },
    { flush: 'sync' },
  );
  /** The project with what floats put down, for the view. */
  const preview = computed<Project | null>(() =>
    args.value ? session.tryEdit(placeCellsEdit, args.value, true) : null,
  );
  return { floating, repeat, args, lastArgs: () => args.value ?? held, preview, target, source, hollows, copies };
}
export type Placing = ReturnType<typeof usePlacing>;
