import type { Box } from '../math';
import { hexBytes, type Palette } from '../palette';
import { BYTE_VALUES, VoxelGrid } from '../voxel';
import { decodeIndexedPng, encodeIndexedPng } from './png';

/** How the slices of a box lie on their sheet: floor plans from the lowest up, left to right, then down. */
export interface SheetLayout {
  readonly columns: number;
  readonly width: number;
  readonly height: number;
}
export function sheetLayout(box: Box): SheetLayout {
  const [nx, ny, nz] = box.size;
  const columns = Math.min(ny, Math.max(1, Math.ceil(Math.sqrt((ny * nz) / nx))));
  return { columns, width: columns * nx, height: Math.ceil(ny / columns) * nz };
}

/** A grid's cells in a box as one indexed picture: a pixel a cell, its value the palette byte. */
export function writeSliceSheet(grid: VoxelGrid, box: Box, palette: Palette): Uint8Array {
  const { columns, width, height } = sheetLayout(box);
  const cells = grid.readBox(box);
  const [nx, ny, nz] = box.size;
  const pixels = new Uint8Array(width * height);
  for (let y = 0; y < ny; y++) {
    const left = (y % columns) * nx,
      top = Math.floor(y / columns) * nz;
    for (let z = 0; z < nz; z++) {
      const from = (z * ny + y) * nx;
      pixels.set(cells.subarray(from, from + nx), (top + z) * width + left);
    }
  }
  const colours = Array.from({ length: BYTE_VALUES }, () => [0, 0, 0] as [number, number, number]);
  for (const s of palette.swatches) colours[s.byte] = [...hexBytes(s.colour)];
  return encodeIndexedPng(width, height, pixels, colours);
}

/** The grid of a sheet. @throws FileError when the picture does not fit the box. */
export function readSliceSheet(png: Uint8Array, box: Box, what: string): VoxelGrid {
  const { columns, width, height } = sheetLayout(box);
  const pixels = decodeIndexedPng(png, width, height, what);
  const [nx, ny, nz] = box.size;
  const cells = new Uint8Array(nx * ny * nz);
  for (let y = 0; y < ny; y++) {
    const left = (y % columns) * nx,
      top = Math.floor(y / columns) * nz;
    for (let z = 0; z < nz; z++) {
      const from = (top + z) * width + left;
      cells.set(pixels.subarray(from, from + nx), (z * ny + y) * nx);
    }
  }
  return VoxelGrid.fromDense(box, cells);
}
