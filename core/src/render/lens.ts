import { type Vec3, cross, normalize, scale, sub } from '../math';
import type { Camera } from '../model';

export interface TraceCamera {
  readonly perspective: boolean;
  readonly eye: Vec3;
  /** Towards the right edge, the top edge and ahead; scaled so that the picture spans −1…1 along both. */
  readonly right: Vec3;
  readonly up: Vec3;
  readonly ahead: Vec3;
}

export function traceCamera(camera: Camera, width: number, height: number): TraceCamera {
  const ahead = normalize(sub(camera.target, camera.eye));
  const side = cross(ahead, Math.abs(ahead[1]) > 0.9999 ? [0, 0, -1] : [0, 1, 0]);
  const right = normalize(side);
  const up = cross(right, ahead);
  const half = camera.kind === 'perspective' ? Math.tan((camera.fov * Math.PI) / 360) : camera.height / 2;
  return {
    perspective: camera.kind === 'perspective',
    eye: camera.eye,
    right: scale(right, (half * width) / height),
    up: scale(up, half),
    ahead,
  };
}
