import { type Box, type Vec3, intersectBoxes, mapVec } from '@sphalerite/core/math';
import type { Palette, Swatch } from '@sphalerite/core/palette';
import { movedGrid } from '@sphalerite/core/sculpt';
import { byteTable, CellSet, mapBytes, type VoxelGrid } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import type { ChosenCells } from './chosen-cells';
import type { Placing } from './placing';
import { counted, say } from '../../../words';

interface CopiedPiece {
  readonly grid: VoxelGrid;
  readonly palette: Palette;
}
/** What was copied last; it outlives the project, so that pieces can go from one to another. */
export const useClipboard = defineStore('clipboard', () => ({ piece: shallowRef<CopiedPiece | null>(null) }));

/**
 * The copied piece in the bytes of another palette: equal colours meet, others come along while there is room, and what
 * finds none takes the first swatch.
 */
function remapped(c: CopiedPiece, to: Palette): { grid: VoxelGrid; swatches: Swatch[] } {
  if (to.id === c.palette.id) return { grid: c.grid, swatches: [] };
  const used = new Set<number>();
  c.grid.forEach((_x, _y, _z, v) => used.add(v));
  const taken = new Set(to.swatches.map((s) => s.byte));
  const table = byteTable().fill(to.swatches[0]?.byte ?? 1);
  const swatches: Swatch[] = [];
  for (const s of c.palette.swatches.filter((o) => used.has(o.byte))) {
    const same = to.swatches.find((o) => o.colour === s.colour && o.emissive === s.emissive && o.opacity === s.opacity);
    let byte = same?.byte;
    for (let free = 1; byte === undefined && free <= 255; free++) if (!taken.has(free)) byte = free;
    if (byte === undefined) continue;
    if (!same) {
      taken.add(byte);
      swatches.push({ ...s, byte });
    }
    table[s.byte] = byte;
  }
  return { grid: mapBytes(c.grid, table), swatches };
}

/** How a piece moves into a volume that it does not touch: to the middle of its floor. */
function wayInto(volume: Box, piece: Box): Vec3 {
  const meets = piece.size.every(
    (s, i) => piece.min[i]! < volume.min[i]! + volume.size[i]! && piece.min[i]! + s > volume.min[i]!,
  );
  if (meets) return [0, 0, 0];
  return mapVec([0, 1, 2], (i) =>
    i === 1
      ? volume.min[1] - piece.min[1]
      : volume.min[i]! + (volume.size[i]! >> 1) - piece.min[i]! - (piece.size[i]! >> 1),
  );
}

/** Copying what is selected or floats, and pasting it: into this project or another. */
export function useCopyPaste(chosen: ChosenCells, { floating, source }: Placing, settle: () => void) {
  const session = useSession();
  const build = useBuild();
  const notices = useNotices();
  const clipboard = useClipboard();

  function copy(): boolean {
    const grid = floating.value?.grid ?? source();
    if (!grid || !session.palette || !session.part) return false;
    clipboard.piece = { grid, palette: session.palette };
    notices.say(say('cubes.copied', { n: grid.count }));
    return true;
  }
  /** A piece that would hide in cubes that are there is put on top of them. */
  function inSight(piece: VoxelGrid): VoxelGrid {
    if (!build.seen) return piece;
    const there = CellSet.filled(build.seen, intersectBoxes(piece.bounds, build.seen.bounds));
    return CellSet.filled(piece).minus(there).isEmpty ? movedGrid(piece, [0, piece.bounds.size[1], 0]) : piece;
  }
  /** A pasted piece floats where it was cut, or in the middle when that is far away. */
  function paste(): void {
    const { part, layer, palette } = session;
    const copied = clipboard.piece;
    if (!copied || !part || !layer || !palette) return;
    settle();
    const { grid, swatches } = remapped(copied, palette);
    floating.value = {
      part: part.id,
      layer: layer.id,
      title: `Paste ${counted(grid.count, 'cubes')}`,
      clear: null,
      grid: inSight(movedGrid(grid, wayInto(part.bounds, grid.bounds))),
      by: [0, 0, 0],
      swatches,
    };
    chosen.selected.value = null;
  }
  return { copy, paste };
}
