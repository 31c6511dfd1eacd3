import type { Vec3 } from '../math';
import type { Light } from '../model';
import { type Rgb, hexToLinear } from '../palette';

/** Sun, sky and floor. */
export interface TraceLight {
  readonly sunDirection: Vec3;
  readonly sunColour: Rgb;
  /** Cosine of the disc's half angle. */
  readonly sunCos: number;
  readonly zenith: Rgb;
  readonly horizon: Rgb;
  /** Height of an endless floor, or null. */
  readonly groundY: number | null;
  readonly groundColour: Rgb;
  /** Distances between which the floor melts into the horizon. */
  readonly groundFade: readonly [number, number];
}

export function traceLight(
  light: Light,
  groundY: number,
  fade: readonly [number, number] = [Infinity, Infinity],
): TraceLight {
  const az = (light.sun.azimuth * Math.PI) / 180,
    el = (light.sun.elevation * Math.PI) / 180;
  const times = (c: Rgb, k: number): Rgb => [c[0] * k, c[1] * k, c[2] * k];
  return {
    sunDirection: [Math.sin(az) * Math.cos(el), Math.sin(el), Math.cos(az) * Math.cos(el)],
    sunColour: times(hexToLinear(light.sun.colour), light.sun.strength),
    sunCos: Math.cos((light.sun.size * Math.PI) / 360),
    zenith: times(hexToLinear(light.sky.zenith), light.sky.strength),
    horizon: times(hexToLinear(light.sky.horizon), light.sky.strength),
    groundY: light.ground.kind === 'none' ? null : groundY,
    groundColour: hexToLinear(light.ground.colour),
    groundFade: fade,
  };
}
