import { type Transform, type Vec3, invertQuat, mulQuat, normalizeQuat, sub } from '@sphalerite/core/math';
import type { Clip, Id, Project, SavedPose } from '@sphalerite/core/model';
import { type CopiedKeys, spinTurn } from '@sphalerite/core/motion';
import type { Pose } from '@sphalerite/core/rig';

/** What a pose does to each bone, from rest; `spinOf` says how far one has spun in it, which is no part of a pose. */
export const poseOffsets = (project: Project, pose: Pose, spinOf: (bone: Id) => Vec3): SavedPose['bones'] =>
  project.rig.bones.flatMap(({ id, rest }) => {
    const now = pose.get(id);
    if (!now) return [];
    const offset: Transform = {
      t: sub(now.t, rest.t),
      q: normalizeQuat(mulQuat(mulQuat(invertQuat(rest.q), now.q), invertQuat(spinTurn(spinOf(id))))),
      s: [now.s[0] / rest.s[0], now.s[1] / rest.s[1], now.s[2] / rest.s[2]],
    };
    return [{ bone: id, offset }];
  });

/** Keys that put every channel that moves in a clip to rest. */
export const restKeys = (clip: Clip): CopiedKeys => ({
  keys: clip.lanes.flatMap((l) => [
    ...(l.turn.length > 0
      ? [
          {
            bone: l.bone,
            channel: 'turn' as const,
            key: { time: 0, ease: 'ease' as const, value: [0, 0, 0, 1] as const },
          },
        ]
      : []),
    ...(l.move.length > 0
      ? [{ bone: l.bone, channel: 'move' as const, key: { time: 0, ease: 'ease' as const, value: [0, 0, 0] as const } }]
      : []),
    ...(l.scale.length > 0
      ? [
          {
            bone: l.bone,
            channel: 'scale' as const,
            key: { time: 0, ease: 'ease' as const, value: [1, 1, 1] as const },
          },
        ]
      : []),
  ]),
});
