import { type Quat, type Vec3, invertQuat, mulQuat, sub } from '@sphalerite/core/math';
import { nearestFrame } from '@sphalerite/core/motion';
import { setKeyEdit } from '@sphalerite/core/project';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';

/** Sets a turn or move key for the bone in hand, from an absolute local value. */
export function useKeying(): { turn(bone: string, q: Quat, done: boolean): void; move(bone: string, t: Vec3, done: boolean): void; hold(): void } {
  const session = useSession();
  const anim = useAnimate();
  const notices = useNotices();
  const write = (bone: string, channel: 'turn' | 'move', value: Quat | Vec3, done: boolean): void => {
    const clip = session.clip;
    if (!clip) {
      if (done) notices.say('Choose or make a clip first; keys stand in clips.', { kind: 'error' });
      return;
    }
    const args = { clip: clip.id, bone, channel, key: { time: nearestFrame(clip, anim.time), ease: 'ease' as const, value } };
    if (done) session.apply(setKeyEdit, args);
    else session.preview = session.tryEdit(setKeyEdit, args, true);
  };
  const restOf = (bone: string) => session.project!.rig.bones.find((b) => b.id === bone)!.rest;
  return {
    turn: (bone, q, done) => write(bone, 'turn', mulQuat(invertQuat(restOf(bone).q), q), done),
    move: (bone, t, done) => write(bone, 'move', sub(t, restOf(bone).t), done),
    /** Keys the turn as it is now. */
    hold() {
      const b = session.bone;
      if (!b) return;
      const now = anim.pose.get(b.id) ?? b.rest;
      write(b.id, 'turn', mulQuat(invertQuat(b.rest.q), now.q), true);
    },
  };
}
