import { type Quat, type Vec3, quatFromAxisAngle } from '../math';
import { type Clip, type Lane, type Rig, TICKS, constraintTargets, constraintWrites } from '../model';
import { bonesInOrder } from '../rig';
import { emptyLane } from './keys';

const FPS = 24;
/** Frames for a swing to one side and back to the other. */
const SWING = 24;
const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const NO_TURN: Quat = [0, 0, 0, 1];

/**
 * A reel for trying a rig: every bone that carries a part swings about X, Y and Z to both sides, one bone after another. Bones that
 * constraints turn are left to them. Null when nothing can swing.
 *
 * @param degrees – to each side
 */
export function poseTest(rig: Rig, degrees: number): Pick<Clip, 'length' | 'fps' | 'loop' | 'lanes'> | null {
  const steered = new Set(rig.constraints.flatMap((c) => constraintWrites(rig, c))),
    controls = new Set(rig.constraints.flatMap(constraintTargets));
  const bones = bonesInOrder(rig).filter(
    (b) => rig.mounts.some((m) => m.bone === b.id) && !steered.has(b.id) && !controls.has(b.id),
  );
  if (bones.length === 0) return null;
  const tick = TICKS / FPS,
    angle = (degrees * Math.PI) / 180;
  const lanes = bones.map((b, i): Lane => {
    const from = i * AXES.length * SWING;
    const turn = AXES.flatMap((axis, k) =>
      [0, 0.25, 0.75].map((at) => ({
        time: Math.round((from + (k + at) * SWING) * tick),
        ease: 'ease' as const,
        value: at === 0 ? NO_TURN : quatFromAxisAngle(axis, at < 0.5 ? angle : -angle),
      })),
    );
    return {
      ...emptyLane(b.id),
      hinge: [],
      turn: [...turn, { time: Math.round((from + AXES.length * SWING) * tick), ease: 'ease', value: NO_TURN }],
    };
  });
  return { length: Math.round(bones.length * AXES.length * SWING * tick), fps: FPS, loop: true, lanes };
}
