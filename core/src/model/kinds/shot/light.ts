import * as z from 'zod';
import type { Vec3 } from '../../../math';
import type { Id } from '../../ids';
import { mention } from '../../marks';
import { finite, hex, vec3 } from '../fields';

/** What surrounds everything: a sky of two colours, a picture of one's own, or one of those painted by code. */
export const SKY_KINDS = [
  'gradient',
  'picture',
  'overcast',
  'blue hour',
  'sunset',
  'forest',
  'hall',
  'studio',
  'night town',
  'snow',
] as const;
export type SkyKind = (typeof SKY_KINDS)[number];

/** What a shot changes of a lamp of its scene. */
export interface LampChange {
  readonly lamp: Id;
  /** Times its own. */
  readonly strength: number;
  /** In place of its own; null keeps it. */
  readonly colour: string | null;
  /** Moved by, in the world. */
  readonly by: Vec3;
}

export interface Light {
  readonly sun: {
    /** Degrees clockwise from +Z (south of the model) seen from above. */
    readonly azimuth: number;
    /** Degrees above the horizon. */
    readonly elevation: number;
    /** Width of the disc in degrees; wider is softer. */
    readonly size: number;
    readonly colour: string;
    readonly strength: number;
  };
  readonly sky: {
    readonly kind: SkyKind;
    /** Light from all directions as a Radiance picture, twice as wide as high; of the kind `picture`, which is a gradient without. */
    readonly picture: Id | null;
    /** Of the gradient. */
    readonly zenith: string;
    readonly horizon: string;
    readonly strength: number;
    /** Degrees that painted surroundings are turned by. */
    readonly turn: number;
    /** Whether the eye sees it, or its light alone comes in. */
    readonly seen: boolean;
  };
  /** Light that comes from everywhere and is never shaded. */
  readonly ambient: { readonly colour: string; readonly strength: number };
  /** Of the scene’s lamps. */
  readonly lamps: { readonly strength: number; readonly changes: readonly LampChange[] };
  /** Multiplies the glow of every swatch. */
  readonly glow: { readonly strength: number; readonly tint: string };
  readonly fog: {
    /** Share of the light that is lost over a metre at the floor, as a rate: e^−density stays; 0 has none. */
    readonly density: number;
    readonly colour: string;
    /** Metres over which it thins to 1/e going up; 0 is alike at every height. */
    readonly height: number;
  };
}

export const DEFAULT_LIGHT: Light = {
  sun: { azimuth: 35, elevation: 42, size: 3, colour: '#fff1dc', strength: 2.6 },
  sky: {
    kind: 'gradient',
    picture: null,
    zenith: '#8fb4d9',
    horizon: '#e9e4da',
    strength: 0.9,
    turn: 0,
    seen: true,
  },
  ambient: { colour: '#ffffff', strength: 0 },
  lamps: { strength: 1, changes: [] },
  glow: { strength: 1, tint: '#ffffff' },
  fog: { density: 0, colour: '#c9d2d6', height: 0 },
};

/** Light, each part of it as it is at first where nothing else is said. */
export function makeLight(more: { readonly [K in keyof Light]?: Partial<Light[K]> }): Light {
  const part = <K extends keyof Light>(k: K): Light[K] => ({ ...DEFAULT_LIGHT[k], ...more[k] });
  return {
    ...{ sun: part('sun'), sky: part('sky'), ambient: part('ambient') },
    ...{ lamps: part('lamps'), glow: part('glow'), fog: part('fog') },
  };
}

const strength = finite.min(0).max(1000);
export const lightSchema = z.strictObject({
  sun: z.strictObject({
    azimuth: finite,
    elevation: finite.min(-90).max(90),
    size: finite.min(0.1).max(90),
    colour: hex,
    strength,
  }),
  sky: z.strictObject({
    kind: z.enum(SKY_KINDS),
    picture: mention('blob').nullable(),
    zenith: hex,
    horizon: hex,
    strength,
    turn: finite,
    seen: z.boolean(),
  }),
  ambient: z.strictObject({ colour: hex, strength }),
  lamps: z.strictObject({
    strength,
    changes: z.array(z.strictObject({ lamp: mention('lamp'), strength, colour: hex.nullable(), by: vec3 })).max(16_384),
  }),
  glow: z.strictObject({ strength, tint: hex }),
  fog: z.strictObject({ density: finite.min(0).max(100), colour: hex, height: finite.min(0).max(10_000) }),
});
