import type { Vec3 } from '../math';
import { decodeRadiance } from '../codec';
import type { Blob, Light } from '../model';
import { type Rgb, hexToLinear } from '../palette';
import { Sky, type SkyMap } from './sky';
import { paintedSky } from './painted-sky';

/** Sun and sky. */
export interface TraceLight {
  readonly sunDirection: Vec3;
  readonly sunColour: Rgb;
  /** Cosine of the disc's half angle. */
  readonly sunCos: number;
  readonly sky: Sky;
  /** Whether the eye sees the sky; it sees `plain` otherwise. */
  readonly seen: boolean;
  readonly plain: Sky;
  readonly ambient: Rgb;
}

const read = new WeakMap<Blob, SkyMap>();
/** The picture of light that a blob holds; the same one each time. */
export function skyPicture(blob: Blob | null | undefined): SkyMap | null {
  if (!blob) return null;
  let map = read.get(blob);
  if (!map) read.set(blob, (map = decodeRadiance(blob.bytes)));
  return map;
}

const times = (c: Rgb, k: number): Rgb => [c[0] * k, c[1] * k, c[2] * k];

/** @param picture – the surroundings of the kind `picture` */
export function traceLight({ sun, sky, ambient }: Light, picture: SkyMap | null = null): TraceLight {
  const az = (sun.azimuth * Math.PI) / 180,
    el = (sun.elevation * Math.PI) / 180;
  const zenith = times(hexToLinear(sky.zenith), sky.strength),
    horizon = times(hexToLinear(sky.horizon), sky.strength);
  const map = sky.kind === 'gradient' ? null : sky.kind === 'picture' ? picture : paintedSky(sky.kind);
  const plain = new Sky(zenith, horizon);
  return {
    sunDirection: [Math.sin(az) * Math.cos(el), Math.sin(el), Math.cos(az) * Math.cos(el)],
    sunColour: times(hexToLinear(sun.colour), sun.strength),
    sunCos: Math.cos((sun.size * Math.PI) / 360),
    sky: map ? new Sky(zenith, horizon, map, sky.strength, (sky.turn * Math.PI) / 180) : plain,
    seen: sky.seen,
    plain,
    ambient: times(hexToLinear(ambient.colour), ambient.strength),
  };
}
