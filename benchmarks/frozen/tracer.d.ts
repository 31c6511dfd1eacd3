import type { Mat4 } from '@sphalerite/core/math';
import type { Palette } from '@sphalerite/core/palette';
import type { VoxelGrid } from '@sphalerite/core/voxel';

/** What the frozen tracer makes and takes is a matter of its own. */
export type Opaque = { readonly frozen: never };
export function surfacesOf(palette: Palette, glow: number): Opaque;
export function traceInstance(grid: VoxelGrid, surfaces: Opaque, matrix: Mat4): Opaque | null;
export function traceBodies(instances: readonly Opaque[]): { readonly instances: readonly Opaque[] };
export function traceLight(light: unknown, groundY: number, fade?: readonly [number, number]): Opaque;
export function traceCamera(camera: unknown, width: number, height: number): Opaque;
/** Sums over an area, three a pixel, as `light`. */
export function traceArea(
  scene: object,
  area: { x: number; y: number; width: number; height: number },
  first: number,
  samples: number,
  options?: { bounces: number; clamp: number },
): { readonly light: Float32Array };
