import { AXES, type Axis, type Box, type Vec3, add, intersectBoxes, mapVec } from '@sphalerite/core/math';
import { type Project, composite } from '@sphalerite/core/model';
import type { Palette, Swatch } from '@sphalerite/core/palette';
import { cellsToLayerEdit, cellsToPartEdit, addStampEdit, placeCellsEdit, strokeEdit } from '@sphalerite/core/project';
import {
  NO_SYMMETRY,
  changedCells,
  cutOut,
  middleOf,
  mirrorSet,
  mirroredGrid,
  movedGrid,
  quarterTurned,
  repeatSteps,
  resampled,
  turnedGrid,
} from '@sphalerite/core/sculpt';
import { CellSet, VoxelGrid, mapBytes } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';

export const SELECT_MODES = ['new', 'add', 'remove', 'common'] as const;
export type SelectMode = (typeof SELECT_MODES)[number];

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
}

interface Clip {
  readonly grid: VoxelGrid;
  readonly palette: Palette;
  readonly cell: number;
}
/** What was copied last; it outlives the project, so that pieces can go from one to another. */
const clipboard = shallowRef<Clip | null>(null);
/** What was selected beside each state of the project, so that undo brings it back. */
const remembered = new WeakMap<Project, { part: string; set: CellSet | null }>();

/**
 * The copied piece in the bytes of another palette: equal colours meet, others come along while there is room, and what
 * finds none takes the first swatch.
 */
function remapped(c: Clip, to: Palette): { grid: VoxelGrid; swatches: Swatch[] } {
  if (to.id === c.palette.id) return { grid: c.grid, swatches: [] };
  const used = new Set<number>();
  c.grid.forEach((_x, _y, _z, v) => used.add(v));
  const taken = new Set(to.swatches.map((s) => s.byte));
  const table = new Uint8Array(256).fill(to.swatches[0]?.byte ?? 1);
  const swatches: Swatch[] = [];
  for (const s of c.palette.swatches.filter((o) => used.has(o.byte))) {
    const same = to.swatches.find((o) => o.colour === s.colour && o.emissive === s.emissive && o.opacity === s.opacity);
    let byte = same?.byte;
    for (let free = 1; byte === undefined && free <= 255; free++) if (!taken.has(free)) byte = free;
    if (byte !== undefined && !same) {
      taken.add(byte);
      swatches.push({ ...s, byte });
    }
    if (byte !== undefined) table[s.byte] = byte;
  }
  return { grid: mapBytes(c.grid, table), swatches };
}

type PlaceArgs = Parameters<typeof placeCellsEdit.run>[1];

/** The selected cells of the part on the bench and what is being done with them. */
export const useSelection = defineStore('selection', () => {
  const session = useSession();
  const build = useBuild();
  const notices = useNotices();
  const selected = shallowRef<CellSet | null>(null);
  const floating = shallowRef<Floating | null>(null);
  const repeat = shallowRef<Repeat | null>(null);
  const mode = ref<SelectMode>('new');
  const kept = shallowRef<Box | null>(null);
  /** The last change of the part on the bench; what it made is worked out only when someone asks. */
  const lastChange = shallowRef<{ part: string; before: VoxelGrid; after: VoxelGrid } | null>(null);
  /** The cubes that the last change made, null when it made none. */
  const made = computed<{ part: string; set: CellSet } | null>(() => {
    const c = lastChange.value;
    if (!c) return null;
    const set = changedCells(c.before, c.after).intersect(CellSet.filled(c.after));
    const tight = set.tight;
    return tight && { part: c.part, set: set.within(tight) };
  });
  let skip = false;

  const target = () => ({ part: session.part!.id, layer: session.layer!.id, limit: build.limit });

  watch(
    () => session.project,
    (now, before) => {
      if (!now || now === before) return;
      floating.value = null;
      const part = session.part;
      const known = remembered.get(now);
      if (known && known.part === part?.id) selected.value = known.set;
      else {
        if (before && part && !skip) noteMade(before, now, part.id);
        remembered.set(now, { part: part?.id ?? '', set: selected.value });
      }
      // At once: what floats after an edit must not be taken for something that floated before it.
    },
    { flush: 'sync' },
  );
  watch(
    () => session.view.part,
    () => {
      settle();
      selected.value = null;
      repeat.value = null;
    },
  );
  function noteMade(before: Project, now: Project, id: string): void {
    const a = before.parts.find((p) => p.id === id),
      b = now.parts.find((p) => p.id === id);
    if (!a || !b || a.bounds !== b.bounds || a === b) return;
    const [was, after] = [composite(a), composite(b)];
    // What only took cubes away leaves the thing made before it as the last one made.
    if (after !== was && after.count >= was.count) lastChange.value = { part: id, before: was, after };
  }

  const box = computed<Box | null>(() =>
    floating.value ? floating.value.grid.contentBox() : (selected.value?.tight ?? null),
  );
  const count = computed(() => (floating.value ? floating.value.grid.count : (selected.value?.count ?? 0)));
  const active = computed(() => floating.value !== null || (selected.value !== null && !selected.value.isEmpty));

  function remember(): void {
    if (session.project && session.part)
      remembered.set(session.project, { part: session.part.id, set: selected.value });
  }
  function set(next: CellSet | null): void {
    const tight = next?.tight;
    selected.value = next && tight ? next.within(tight) : null;
    remember();
  }
  /** Takes cells up as the mode says. Only cubes that are there count. */
  function take(cells: CellSet, how: SelectMode = mode.value): void {
    settle();
    const seen = build.seen;
    if (!seen) return;
    const there = cells.intersect(CellSet.filled(seen, intersectBoxes(cells.box, seen.bounds)));
    const old = selected.value;
    set(
      how === 'new' || !old
        ? how === 'remove' || how === 'common'
          ? old
            ? there
            : null
          : there
        : how === 'add'
          ? old.union(there)
          : how === 'remove'
            ? old.minus(there)
            : old.intersect(there),
    );
  }

  /** Copies of a piece on the other sides, as the live symmetry asks; a piece across a plane is moved as one. */
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
  const args = computed<PlaceArgs | null>(() => {
    const f = floating.value;
    const p = session.part;
    if (!p || !session.layer || (f && f.part !== p.id)) return null;
    if (f) {
      const { put, clear } = images(f.grid, f.clear);
      return {
        ...target(),
        layer: f.layer,
        clear,
        put,
        title: f.title,
        grow: build.growVolume,
        swatches: f.swatches ?? [],
      };
    }
    const r = repeat.value,
      piece = r && source();
    return r && piece
      ? {
          ...target(),
          clear: null,
          put: copies(piece, r).flatMap((g) => images(g, null).put),
          title: `Repeat ${r.count} times`,
          grow: true,
        }
      : null;
  });
  /** What is selected, as cubes of the layer in hand. */
  function source(): VoxelGrid | null {
    const set = selected.value ?? (made.value?.part === session.part?.id ? made.value!.set : null);
    return set && session.layer ? cutOut(session.layer.grid, set) : null;
  }
  function copies(piece: VoxelGrid, r: Repeat): VoxelGrid[] {
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

  function float(title: string, copy = false): boolean {
    if (floating.value) return true;
    const layer = session.layer,
      cells = selected.value;
    const grid = layer && cells ? cutOut(layer.grid, cells) : null;
    if (!grid) {
      notices.say(
        cells
          ? `The selection holds no cubes of layer “${layer?.name ?? ''}”. Choose the layer that has them.`
          : 'Nothing is selected. Select some cubes first.',
        { kind: 'error' },
      );
      return false;
    }
    floating.value = {
      part: session.part!.id,
      layer: session.layer!.id,
      title,
      clear: copy ? null : cells,
      grid,
      by: [0, 0, 0],
    };
    return true;
  }
  function nudge(by: Vec3, copy = false): void {
    if (!floating.value && !float(`${copy ? 'Copy' : 'Move'} ${count.value.toLocaleString('en')} cubes`, copy)) return;
    const f = floating.value!;
    floating.value = { ...f, grid: movedGrid(f.grid, by), by: add(f.by, by) };
  }
  /** To a place given as the whole way since it was lifted. */
  const moveTo = (by: Vec3): void => {
    const f = floating.value;
    if (f) nudge([by[0] - f.by[0], by[1] - f.by[1], by[2] - f.by[2]]);
  };
  function reshape(title: string, change: (g: VoxelGrid) => VoxelGrid): void {
    if (!floating.value && !float(title)) return;
    floating.value = { ...floating.value!, grid: change(floating.value!.grid) };
  }
  const turn = (axis: Axis, quarters: number): void => reshape('Turn', (g) => quarterTurned(g, axis, quarters));
  const flip = (axis: Axis): void =>
    reshape('Flip', (g) => mirroredGrid(g, axis, middleOf(g.contentBox() ?? g.bounds)[axis]));

  /** Puts down what floats, as one step. */
  function settle(): void {
    const f = floating.value,
      a = args.value ?? held;
    if (!f || !a) return;
    const end = f.grid.contentBox();
    const changed =
      f.clear === null || f.by.some((v) => v !== 0) || f.title !== `Move ${f.grid.count.toLocaleString('en')} cubes`;
    floating.value = null;
    if (!changed) return;
    const cells = CellSet.filled(f.grid, end ?? f.grid.bounds);
    skip = true;
    const part = session.project?.parts.find((p) => p.id === f.part);
    const outside = end && part && !build.growVolume ? f.grid.countOutside(part.bounds) : 0;
    session.apply(placeCellsEdit, a);
    skip = false;
    if (part && part.id === session.part?.id) set(cells.within(intersectBoxes(cells.box, part.bounds)));
    if (outside > 0) {
      notices.say(`${outside.toLocaleString('en')} cubes would have left the volume and were cut off.`, {
        action: {
          label: 'Grow to fit',
          run: () => {
            session.undo();
            session.apply(placeCellsEdit, { ...a, grow: true });
            set(cells);
          },
        },
      });
    }
  }
  function setRepeat(): void {
    const a = args.value;
    if (!repeat.value || !a) return;
    repeat.value = null;
    session.apply(placeCellsEdit, a);
    // Nothing stays selected, so that the next repeat takes what is drawn next.
    set(null);
  }
  function cancel(): void {
    floating.value = null;
    repeat.value = null;
  }

  function copy(): boolean {
    const grid = floating.value?.grid ?? source();
    if (!grid || !session.palette || !session.part) return false;
    clipboard.value = { grid, palette: session.palette, cell: session.part.cell };
    notices.say(`${grid.count.toLocaleString('en')} cubes copied.`);
    return true;
  }
  function remove(title = 'Delete'): void {
    if (floating.value) {
      const f = floating.value;
      floating.value = null;
      if (f.clear)
        session.apply(placeCellsEdit, { ...target(), part: f.part, layer: f.layer, clear: f.clear, put: [], title });
    } else if (selected.value)
      session.apply(placeCellsEdit, {
        ...target(),
        clear: images(VoxelGrid.empty({ min: [0, 0, 0], size: [1, 1, 1] }), selected.value).clear,
        put: [],
        title: `${title} ${count.value.toLocaleString('en')} cubes`,
      });
    set(null);
  }
  /** A pasted piece floats where it was cut, a cube off when it would hide in its original, or in the middle when that is far away. */
  function paste(): void {
    const c = clipboard.value,
      part = session.part;
    if (!c || !part || !session.palette) return;
    settle();
    const { grid, swatches } = remapped(c, session.palette);
    const b = grid.bounds,
      v = part.bounds;
    const inside = b.size.every((s, i) => b.min[i]! < v.min[i]! + v.size[i]! && b.min[i]! + s > v.min[i]!);
    const by: Vec3 = inside
      ? [0, 0, 0]
      : mapVec([0, 1, 2], (i) =>
          i === 1 ? v.min[1] - b.min[1] : v.min[i]! + (v.size[i]! >> 1) - b.min[i]! - (b.size[i]! >> 1),
        );
    const placed = movedGrid(grid, by);
    const covered = build.seen
      ? CellSet.filled(placed).minus(CellSet.filled(build.seen, intersectBoxes(placed.bounds, build.seen.bounds)))
          .isEmpty
      : false;
    floating.value = {
      part: part.id,
      layer: session.layer!.id,
      title: `Paste ${grid.count.toLocaleString('en')} cubes`,
      clear: null,
      grid: covered ? movedGrid(placed, [0, placed.bounds.size[1], 0]) : placed,
      by: [0, 0, 0],
      swatches,
    };
    selected.value = null;
  }
  const recolour = (value: number): void => {
    settle();
    if (selected.value)
      session.apply(strokeEdit, {
        ...target(),
        stroke: { verb: 'paint', value, shapes: [{ kind: 'set', set: selected.value }], symmetry: NO_SYMMETRY },
      });
  };
  const toLayer = (): void => {
    settle();
    if (
      selected.value &&
      session.apply(cellsToLayerEdit, {
        part: session.part!.id,
        layer: session.layer!.id,
        cells: selected.value,
        name: 'Lifted',
      })
    )
      session.choose({
        layer: session.part!.layers[session.part!.layers.findIndex((l) => l.id === session.layer!.id) + 1]?.id ?? null,
      });
  };
  const toPart = (): void => {
    settle();
    const cells = selected.value;
    if (!cells) return;
    const from = session.part!.id;
    session.apply(cellsToPartEdit, { part: from, cells, name: 'Piece' }, (p) => ({
      part: p.parts[p.parts.findIndex((o) => o.id === from) + 1]!.id,
      layer: null,
    }));
  };
  const toStamp = (): void => {
    const grid = floating.value?.grid ?? (selected.value && build.seen ? cutOut(build.seen, selected.value) : source());
    if (!grid || !session.part) return;
    if (
      session.apply(addStampEdit, {
        name: `${session.part.name} piece`,
        cells: grid,
        palette: session.part.palette,
        cell: session.part.cell,
      })
    ) {
      build.stamp = session.project!.stamps.at(-1)!.id;
      notices.say('The piece lies on the stamp shelf.');
    }
  };
  /** Makes the selection as large as the one that was kept: rows are doubled or left out. */
  const makeAlike = (): void => {
    const k = kept.value,
      b = box.value;
    if (k && b) reshape(`Fit to ${k.size.join('×')}`, (g) => resampled(g, g.contentBox()!, k.size, b.min));
  };

  /** Pieces with their turned copies. */
  function spun(put: readonly VoxelGrid[]): VoxelGrid[] {
    const r = build.radial;
    if (!r) return [...put];
    return Array.from({ length: r.count }, (_, k) => put.map((g) => (k === 0 ? g : turnedGrid(g, r, k))))
      .flat()
      .filter((g): g is VoxelGrid => g !== null);
  }
  return {
    mirrored: mirroredGrid,
    spun,
    selected,
    floating,
    repeat,
    mode,
    kept,
    made,
    lastChange,
    box,
    count,
    active,
    preview,
    clipboard,
    set,
    take,
    nudge,
    moveTo,
    float,
    turn,
    flip,
    settle,
    setRepeat,
    cancel,
    copy,
    remove,
    paste,
    recolour,
    toLayer,
    toPart,
    toStamp,
    makeAlike,
  };
});
