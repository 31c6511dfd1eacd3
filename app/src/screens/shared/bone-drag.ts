import { type Quat, type Vec3, mapVec, mulQuat, quatFromAxisAngle } from '@sphalerite/core/math';
import { alongAxis } from '../../tools/geometry';
import { angleOnRing } from '../../viewport/handles';
import type { ViewPointer } from '../../viewport/view-input';

const UNIT: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** Degrees that rings turn by, and with Shift. */
const TURN_STEP = 5;
const FINE_TURN_STEP = 1;

/** Where a handle was taken hold of: the middle, the axis in the world and which of the bone's it is. */
export interface HandleGrip {
  readonly bone: string;
  readonly at: Vec3;
  readonly dir: Vec3;
  readonly axis: number;
}
/** A hand that holds a handle. */
export interface BoneDrag {
  /** Whether it is where it began. */
  readonly idle: boolean;
  /** Follows the pointer; false while the ray misses the handle's plane or axis. */
  follow(p: ViewPointer): boolean;
  /** Tells what it comes to. */
  tell(done: boolean): void;
}

/** Turning a bone by one of its rings, from its rotation `q`. */
export function ringDrag(
  grip: HandleGrip,
  q: Quat,
  p: ViewPointer,
  turn: (bone: string, q: Quat, degrees: number, axis: number, done: boolean) => void,
): BoneDrag {
  const from = angleOnRing(p.ray, grip.at, grip.dir) ?? 0;
  let last = from,
    turns = 0,
    degrees = 0;
  return {
    get idle() {
      return degrees === 0;
    },
    follow(now) {
      const a = angleOnRing(now.ray, grip.at, grip.dir);
      if (a === null) return false;
      // More than one round is counted on, not lost.
      if (a - last > Math.PI) turns--;
      else if (a - last < -Math.PI) turns++;
      last = a;
      const step = now.shift ? FINE_TURN_STEP : TURN_STEP;
      degrees = Math.round((((a - from) * 180) / Math.PI + turns * 360) / step) * step;
      return true;
    },
    tell(done) {
      const by = quatFromAxisAngle(UNIT[grip.axis]!, (degrees * Math.PI) / 180);
      turn(grip.bone, mulQuat(q, by), degrees, grip.axis, done);
    },
  };
}

/** Moving a bone by one of its arrows, in steps of `step` units; 0: any length. */
export function arrowDrag(
  grip: HandleGrip,
  step: number,
  p: ViewPointer,
  move: (bone: string, delta: Vec3, done: boolean) => void,
): BoneDrag {
  const from = alongAxis(p.ray, grip.at, grip.dir) ?? 0;
  let by = 0;
  return {
    get idle() {
      return by === 0;
    },
    follow(now) {
      const along = alongAxis(now.ray, grip.at, grip.dir);
      if (along === null) return false;
      const way = along - from;
      by = step > 0 ? Math.round(way / step) * step : Math.round(way * 100) / 100;
      return true;
    },
    tell(done) {
      move(
        grip.bone,
        mapVec(grip.dir, (n) => n * by),
        done,
      );
    },
  };
}
