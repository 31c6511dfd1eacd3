import type { Vec3 } from '../math';
import { type TraceFloor, traceFloor } from './floor';
import { TRACE_DEFAULTS, type TraceOptions, traceArea } from './integrator';
import { traceCamera } from './lens';
import type { TraceSurfaces } from './material';
import type { TraceInstance } from './shape';
import { Sky } from './sky';
import type { TraceLight } from './surroundings';
import { type SceneParts, type TraceScene, traceScene } from './trace-scene';

/** Every byte of one plain surface: how much it throws back, and how much it glows. */
export const plainSurfaces = (albedo: number, emissive = 0, more: Partial<TraceSurfaces> = {}): TraceSurfaces => ({
  colour: new Float32Array(768).fill(albedo),
  loss: new Float32Array(768).fill(Math.log(Math.max(1e-3, albedo)) / 2),
  glow: new Float32Array(768).fill(albedo * emissive),
  emissive: new Float32Array(256).fill(albedo * emissive),
  roughness: new Float32Array(256).fill(1),
  metalness: new Float32Array(256),
  opacity: new Float32Array(256).fill(1),
  ...more,
});

/** Light of even skies, where nothing else is said without a sun. */
export function evenLight(zenith: number, more: Partial<TraceLight> = {}, horizon = zenith): TraceLight {
  const sky = new Sky([zenith, zenith, zenith], [horizon, horizon, horizon]);
  return {
    ...{ sunDirection: [0, 1, 0], sunColour: [0, 0, 0], sunCos: 1 - 1e-9, sky, seen: true, plain: sky },
    ...{ ambient: [0, 0, 0], ...more },
  };
}

/** A small square picture of some things, through a narrow lens. */
export function lookedAt(
  instances: readonly TraceInstance[],
  light: TraceLight,
  eye: Vec3,
  target: Vec3,
  more: Partial<SceneParts> = {},
  size = 8,
  fov = 4,
): TraceScene {
  const camera = traceCamera({ kind: 'perspective', eye, target, fov, height: 1 }, size, size);
  return traceScene({ instances, light, camera, width: size, height: size, ...more });
}

/** A grey floor at a height. */
export const greyFloor = (y: number, grey: number): TraceFloor => ({
  ...traceFloor({ ground: { kind: 'colour', colour: '#ffffff' } }, y)!,
  colour: [grey, grey, grey],
});

/** The mean red of a picture. */
export function meanOf(s: TraceScene, samples = 64, options: Partial<TraceOptions> = {}): number {
  const whole = { x: 0, y: 0, width: s.width, height: s.height };
  const sum = traceArea(s, whole, 0, samples, { ...TRACE_DEFAULTS, bounces: 64, ...options }).light;
  let total = 0;
  for (let i = 0; i < sum.length; i += 3) total += sum[i]!;
  return total / (s.width * s.height * samples);
}
