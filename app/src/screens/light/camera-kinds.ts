import { type Vec3, add, length, scale, sub } from '@sphalerite/core/math';
import type { Camera, CameraKind } from '@sphalerite/core/model';

/** Heights above the horizon that kinds of cameras look from, in radians. */
const HEIGHTS: Partial<Record<CameraKind, number>> = {
  isometric: Math.atan(Math.SQRT1_2),
  dimetric: Math.PI / 6,
  'three-quarter': Math.PI / 4,
  top: Math.PI / 2,
};

/** The camera as its kind looks: those of a set height from the nearest of the four sides between the axes, from above squarely. */
export function straightened(camera: Camera): Camera {
  const height = HEIGHTS[camera.kind];
  if (height === undefined) return camera;
  const away = sub(camera.eye, camera.target);
  const quarter = Math.PI / 2,
    turn = camera.kind === 'top' ? 0 : quarter / 2;
  const around = Math.round((Math.atan2(away[0], away[2]) - turn) / quarter) * quarter + turn;
  const flat = Math.cos(height);
  // Straight from above there is no way round to tell from the eye: a hair off keeps it.
  const level = Math.max(flat, 1e-4);
  const direction: Vec3 = [Math.sin(around) * level, Math.sin(height), Math.cos(around) * level];
  return { ...camera, eye: add(camera.target, scale(direction, length(away))) };
}
