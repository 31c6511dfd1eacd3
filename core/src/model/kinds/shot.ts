import * as z from 'zod';
import type { Vec3 } from '../../math';
import type { Id } from '../ids';
import { mention, own } from '../marks';
import { finite, hex, name, ticks, vec3 } from './fields';
import type { RecordKind } from './record-kind';

export interface Camera {
  readonly kind: 'perspective' | 'orthographic';
  readonly eye: Vec3;
  readonly target: Vec3;
  /** Vertical, in degrees (perspective). */
  readonly fov: number;
  /** Height of the view in project units (orthographic). */
  readonly height: number;
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
  readonly sky: { readonly zenith: string; readonly horizon: string; readonly strength: number };
  readonly ground: { readonly kind: 'none' | 'colour'; readonly colour: string };
  /** Multiplies the glow of every swatch. */
  readonly glow: number;
}

/** A picture that can be made again: camera, light, pose and output under one name. */
export interface Shot {
  readonly id: Id;
  readonly name: string;
  readonly camera: Camera;
  readonly light: Light;
  /** What is pictured; null is the rig. */
  readonly scene: Id | null;
  readonly clip: Id | null;
  /** The look that is pictured; null is the palette's own. */
  readonly colourway: Id | null;
  /** In ticks of the clip. */
  readonly time: number;
  /** In stops; 0 leaves light as it is. */
  readonly exposure: number;
  readonly size: readonly [number, number];
  readonly samples: number;
}

export const DEFAULT_LIGHT: Light = {
  sun: { azimuth: 35, elevation: 42, size: 3, colour: '#fff1dc', strength: 2.6 },
  sky: { zenith: '#8fb4d9', horizon: '#e9e4da', strength: 0.9 },
  ground: { kind: 'colour', colour: '#cfc8bb' },
  glow: 1,
};

/** Where a shot looks from before anyone has said so. */
export const FIRST_CAMERA: Camera = {
  kind: 'perspective',
  eye: [38, 34, 62],
  target: [0, 18, 0],
  fov: 32,
  height: 48,
};

export const makeShot = (id: Id, name: string, more: Partial<Shot> = {}): Shot => ({
  id,
  name,
  camera: FIRST_CAMERA,
  light: DEFAULT_LIGHT,
  scene: null,
  clip: null,
  colourway: null,
  time: 0,
  exposure: 0,
  size: [640, 400],
  samples: 64,
  ...more,
});

const strength = finite.min(0).max(1000);
const camera = z.strictObject({
  kind: z.enum(['perspective', 'orthographic']),
  eye: vec3,
  target: vec3,
  fov: finite.min(1).max(170),
  height: finite.positive(),
});
const light = z.strictObject({
  sun: z.strictObject({
    azimuth: finite,
    elevation: finite.min(-90).max(90),
    size: finite.min(0.1).max(90),
    colour: hex,
    strength,
  }),
  sky: z.strictObject({ zenith: hex, horizon: hex, strength }),
  ground: z.strictObject({ kind: z.enum(['none', 'colour']), colour: hex }),
  glow: strength,
});
const pixels = z.int().min(1).max(8192);

export const shotKind: RecordKind<'shot', 'shots', Shot> = {
  name: 'shot',
  plural: 'shots',
  list: 'shots',
  most: 1024,
  schema: z.strictObject({
    id: own('shot'),
    name,
    camera,
    light,
    scene: mention('scene').nullable(),
    clip: mention('clip').nullable(),
    colourway: mention('colourway').nullable(),
    time: ticks,
    exposure: finite.min(-20).max(20),
    size: z.tuple([pixels, pixels]),
    samples: z.int().min(1).max(65536),
  }),
  since: 1,
  upgrades: {
    // Colourways came with format 3.
    2: (s) => ({ colourway: null, ...s }),
    12: (s) => ({ scene: null, ...s }),
  },
  kept: z.strictObject({}),
};
