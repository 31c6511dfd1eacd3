import {
  type Quat,
  type Transform,
  type Vec3,
  invertQuat,
  length,
  mapVec,
  mulQuat,
  normalizeQuat,
  scale,
  sub,
} from '@sphalerite/core/math';
import { type CopiedKeys, nearestFrame, spinTurn } from '@sphalerite/core/motion';
import { REST_POSE } from '@sphalerite/core/rig';
import { pasteKeysEdit, setKeyEdit } from '@sphalerite/core/project';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';
import { counted, say } from '../../words';

const factors = (s: Vec3, rest: Vec3): Vec3 => mapVec(s, (v, i) => v / rest[i]);

/** Sets a turn, move, scale or spin key for the bone in hand, from an absolute local value. */
export function useKeying(): {
  turn(bone: string, q: Quat, done: boolean): void;
  move(bone: string, t: Vec3, done: boolean): void;
  /** The bone's local scale. */
  scale(bone: string, s: Vec3, done: boolean): void;
  /** Degrees about the bone's own axes, as many turns as there are. */
  spin(bone: string, degrees: Vec3): void;
  hold(): void;
} {
  const session = useSession();
  const anim = useAnimate();
  const notices = useNotices();
  const write = (bone: string, channel: 'turn' | 'move' | 'scale', value: Quat | Vec3, done: boolean): void => {
    const clip = session.clip;
    if (!clip) {
      if (done) notices.say(say('keys.noClip'), { kind: 'error' });
      return;
    }
    const args = {
      clip: clip.id,
      bone,
      channel,
      key: { time: nearestFrame(clip, anim.time), ease: 'ease' as const, value },
    };
    if (done) session.apply(setKeyEdit, args);
    else session.preview = session.tryEdit(setKeyEdit, args, true);
  };
  const restOf = (bone: string) => session.project!.rig.bones.find((b) => b.id === bone)!.rest;
  /** Without auto-key the bone only stands so until S keys it or time goes on. */
  const trial = (bone: string, change: Partial<Transform>): void => {
    anim.loose = new Map(anim.loose).set(bone, { ...(anim.pose.get(bone) ?? restOf(bone)), ...change });
  };
  /** A bone's turn from rest, without what it has spun by now. */
  const turnOf = (bone: string, q: Quat): Quat => {
    const turn = mulQuat(invertQuat(restOf(bone).q), q),
      spun = anim.spinOf(bone);
    return normalizeQuat(spun.every((v) => v === 0) ? turn : mulQuat(turn, invertQuat(spinTurn(spun))));
  };
  const keysAt = (bones: readonly string[]): CopiedKeys => ({
    keys: bones.flatMap((bone) => {
      const rest = restOf(bone),
        now = anim.pose.get(bone) ?? rest,
        was = anim.kept.get(bone) ?? rest;
      const move = sub(now.t, rest.t),
        turn = turnOf(bone, now.q);
      // Only what changed; a turn when nothing did.
      const moved = length(sub(now.t, was.t)) > 1e-9,
        grew = now.s.some((v, i) => Math.abs(v - was.s[i]!) > 1e-9);
      const turned =
        !(moved || grew) ||
        Math.abs(now.q[0] * was.q[0] + now.q[1] * was.q[1] + now.q[2] * was.q[2] + now.q[3] * was.q[3]) < 1 - 1e-12;
      const key = <V extends Quat | Vec3>(channel: 'move' | 'turn' | 'scale', value: V) => ({
        bone,
        channel,
        key: { time: 0, ease: 'ease' as const, value },
      });
      return [
        ...(turned ? [key('turn', turn)] : []),
        ...(moved ? [key('move', move)] : []),
        ...(grew ? [key('scale', factors(now.s, rest.s))] : []),
      ];
    }),
  });
  return {
    turn: (bone, q, done) => (anim.auto ? write(bone, 'turn', turnOf(bone, q), done) : trial(bone, { q })),
    move: (bone, t, done) => (anim.auto ? write(bone, 'move', sub(t, restOf(bone).t), done) : trial(bone, { t })),
    scale: (bone, s, done) => (anim.auto ? write(bone, 'scale', factors(s, restOf(bone).s), done) : trial(bone, { s })),
    /** The first key of a spin that is not at the beginning lets it begin there, unspun. */
    spin(bone, degrees) {
      const clip = session.clip;
      if (!clip) return;
      const time = nearestFrame(clip, anim.time),
        value = scale(degrees, Math.PI / 180);
      const first = time > 0 && !clip.lanes.some((l) => l.bone === bone && l.hinge.length > 0);
      const key = (at: number, v: Vec3) => ({
        bone,
        channel: 'hinge' as const,
        key: { time: at, ease: 'linear' as const, value: v },
      });
      const keys = first ? [key(0, [0, 0, 0]), key(time, value)] : [key(time, value)];
      const what = `Spin ${session.bone?.name ?? 'a bone'}`;
      session.apply(pasteKeysEdit, { clip: clip.id, copied: { keys }, at: 0, what });
    },
    /** Keys what was tried out, or the bone in hand as it is now. */
    hold() {
      const clip = session.clip,
        bones = anim.loose.size > 0 ? [...anim.loose.keys()] : session.bone ? [session.bone.id] : [];
      if (!clip || bones.length === 0) return;
      const copied = keysAt(bones);
      const first =
        bones.length === 1
          ? session.project!.rig.bones.find((b) => b.id === bones[0])!.name
          : counted(bones.length, 'bones');
      if (
        session.apply(pasteKeysEdit, { clip: clip.id, copied, at: nearestFrame(clip, anim.time), what: `Key ${first}` })
      )
        anim.loose = REST_POSE;
    },
  };
}
