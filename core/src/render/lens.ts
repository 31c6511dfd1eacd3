import { type Vec3, cross, normalize, scale, sub } from '../math';
import type { Camera } from '../model';

/** Height of the picture behind the lens in metres, which focal lengths and f-numbers are measured by. */
const SENSOR = 0.024;
/** The field of view whose lens parallel views borrow, in degrees. */
const PARALLEL_FOV = 27;

export interface TraceCamera {
  readonly perspective: boolean;
  readonly eye: Vec3;
  /** Towards the right edge, the top edge and ahead; scaled so that the picture spans −1…1 along both. */
  readonly right: Vec3;
  readonly up: Vec3;
  readonly ahead: Vec3;
  /** How far the picture is moved over the lens, in halves of its width and height. */
  readonly shift: readonly [number, number];
  /** Radius of the lens, 0 for none; and of length 1 the directions along it. */
  readonly lens: number;
  readonly side: Vec3;
  readonly above: Vec3;
  /** How far ahead lies what is sharp. */
  readonly focus: number;
  readonly blades: number;
}

/** Those fields of a camera that a view has to have; a lens that it does not tell has everything sharp. */
export type PlainCamera = Pick<Camera, 'kind' | 'eye' | 'target' | 'fov' | 'height'> & Partial<Camera>;

/** @param metresPerUnit – how large a project unit is beside the lens */
export function traceCamera(camera: PlainCamera, width: number, height: number, metresPerUnit = 1): TraceCamera {
  const { eye, target, aperture = 0, roll = 0, shift = [0, 0], blades = 0 } = camera;
  const ahead = normalize(sub(target, eye));
  const level = normalize(cross(ahead, Math.abs(ahead[1]) > 0.9999 ? [0, 0, -1] : [0, 1, 0]));
  const upright = cross(level, ahead);
  const c = Math.cos((roll * Math.PI) / 180),
    s = Math.sin((roll * Math.PI) / 180);
  const side: Vec3 = [0, 1, 2].map((a) => level[a]! * c - upright[a]! * s) as unknown as Vec3,
    above: Vec3 = [0, 1, 2].map((a) => upright[a]! * c + level[a]! * s) as unknown as Vec3;
  const perspective = camera.kind === 'perspective';
  const half = perspective ? Math.tan((camera.fov * Math.PI) / 360) : camera.height / 2;
  return {
    ...{ perspective, eye, ahead, shift, side, above, blades },
    right: scale(side, (half * width) / height),
    up: scale(above, half),
    lens: aperture === 0 ? 0 : focalLength(camera) / (2 * aperture) / metresPerUnit,
    focus: camera.focus ?? Math.hypot(...sub(target, eye)),
  };
}

/** Focal length of a camera's lens in metres. */
export const focalLength = ({ kind, fov }: Pick<Camera, 'kind' | 'fov'>): number =>
  SENSOR / 2 / Math.tan(((kind === 'perspective' ? fov : PARALLEL_FOV) * Math.PI) / 360);
/** The vertical field of view in degrees of a lens of so many metres. */
export const fovOfLens = (length: number): number => (Math.atan(SENSOR / 2 / length) * 360) / Math.PI;

/** A point of the lens by two chances, from its middle: of a disc, or of as many triangles as it has blades. */
export function pointOfLens({ lens, blades }: TraceCamera, u: number, v: number, out: Float64Array): void {
  if (blades < 3) {
    const r = Math.sqrt(u) * lens;
    out[0] = r * Math.cos(2 * Math.PI * v);
    out[1] = r * Math.sin(2 * Math.PI * v);
    return;
  }
  const turn = (2 * Math.PI) / blades;
  const k = Math.min(blades - 1, Math.floor(v * blades)),
    along = v * blades - k,
    r = Math.sqrt(u) * lens;
  const a = r * (1 - along),
    b = r * along;
  out[0] = a * Math.cos(k * turn) + b * Math.cos((k + 1) * turn);
  out[1] = a * Math.sin(k * turn) + b * Math.sin((k + 1) * turn);
}
