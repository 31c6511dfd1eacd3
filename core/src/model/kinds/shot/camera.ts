import * as z from 'zod';
import type { Vec3 } from '../../../math';
import { finite, vec3 } from '../fields';

/**
 * How a camera looks. All but the first draw parallel lines parallel; those after `orthographic` look down at an angle of their
 * own from one of four sides: 35.26° (isometric, all three axes alike), 30° (dimetric, a step of one up for two across), 45°, 90°.
 */
export const CAMERA_KINDS = ['perspective', 'orthographic', 'isometric', 'dimetric', 'three-quarter', 'top'] as const;
export type CameraKind = (typeof CAMERA_KINDS)[number];

export interface Camera {
  readonly kind: CameraKind;
  readonly eye: Vec3;
  readonly target: Vec3;
  /** Vertical, in degrees (perspective). */
  readonly fov: number;
  /** Height of the view in project units (all others). */
  readonly height: number;
  /** Degrees that the picture is turned about its middle, clockwise. */
  readonly roll: number;
  /** How far the picture is moved over the lens, to the right and up, in halves of its width and height: walls stay upright. */
  readonly shift: readonly [number, number];
  /** How far away what is sharp lies along the view, in project units; null is as far as the target. */
  readonly focus: number | null;
  /** The f-number of a lens on a picture 24 mm high; 0 has everything sharp. */
  readonly aperture: number;
  /** Blades of its iris; 0 is round. */
  readonly blades: number;
  /** Whether turning the view leaves it as it is. */
  readonly locked: boolean;
}

/** A lens that has everything sharp and straight. */
export const PLAIN_LENS = { roll: 0, shift: [0, 0], focus: null, aperture: 0, blades: 0 } as const;

/** Where a shot looks from before anyone has said so. */
export const FIRST_CAMERA: Camera = {
  kind: 'perspective',
  eye: [38, 34, 62],
  target: [0, 18, 0],
  fov: 32,
  height: 48,
  ...PLAIN_LENS,
  locked: false,
};

/** A camera, where nothing else is said with everything sharp. */
export const makeCamera = (more: Partial<Camera>): Camera => ({ ...FIRST_CAMERA, ...more });

const shift = finite.min(-2).max(2);
export const cameraSchema = z.strictObject({
  kind: z.enum(CAMERA_KINDS),
  eye: vec3,
  target: vec3,
  fov: finite.min(1).max(170),
  height: finite.positive(),
  roll: finite.min(-180).max(180),
  shift: z.tuple([shift, shift]),
  focus: finite.positive().nullable(),
  aperture: finite.min(0).max(128),
  blades: z.int().min(0).max(16),
  locked: z.boolean(),
});
