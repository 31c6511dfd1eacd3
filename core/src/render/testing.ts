import type { TraceSurfaces } from './material';

/** Every byte of one plain surface: how much it throws back, and how much it glows. */
export const plainSurfaces = (albedo: number, emissive = 0): TraceSurfaces => ({
  colour: new Float32Array(768).fill(albedo),
  emissive: new Float32Array(256).fill(emissive),
  roughness: new Float32Array(256).fill(1),
  metalness: new Float32Array(256),
  opacity: new Float32Array(256).fill(1),
});
