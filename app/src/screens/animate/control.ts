import { IconKey, IconPlayerPlay, IconPlayerSkipBack } from '@tabler/icons-vue';
import { type Quat, type Vec3, invertQuat, mulQuat, sub } from '@sphalerite/core/math';
import { sideSuffix } from '@sphalerite/core/model';
import { countKeys, frameOf, nearestFrame } from '@sphalerite/core/motion';
import { addClipEdit, deleteClipEdit, removeKeysEdit, setKeyEdit } from '@sphalerite/core/project';
import type { ScreenControl } from '../../shell/screen';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY } from '../../viewport/overlay';
import { boneHandles } from '../shared/bone-handles';
import { useAnimate } from './animate-state';

const AXES = ['X', 'Y', 'Z'] as const;

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

export function animateControl(): ScreenControl {
  const session = useSession();
  const view = useView();
  const anim = useAnimate();
  const keying = useKeying();
  const handles = boneHandles({
    project: () => session.shown,
    pose: () => anim.pose,
    basePose: () => anim.pose,
    selected: () => session.view.bone,
    select: (bone) => session.choose({ bone }),
    arrows: () => null,
    enabled: () => session.writable && !anim.playing && session.clip !== null,
    turn(bone, q, degrees, axis, done) {
      view.measure = done ? '' : `turn ${AXES[axis]!} ${degrees}°`;
      keying.turn(bone, q, done);
    },
    move: () => undefined,
    cancel() {
      session.preview = null;
      view.measure = '';
    },
  });
  return {
    scene: () => (session.shown ? { project: session.shown, pose: anim.pose, without: () => false, faint: () => false } : null),
    overlay: () => (anim.playing ? NO_OVERLAY : { ...NO_OVERLAY, ...handles.overlay() }),
    pointer: handles.pointer,
    trail: () => [session.project?.name ?? '', session.clip?.name ?? 'no clip', ...(session.clip ? [`frame ${frameOf(session.clip, anim.time)}`] : [])],
    chips: () => [
      ...(anim.autoKey ? [{ text: 'turning a bone sets a key', tone: 'resin' as const, icon: IconKey }] : []),
      ...(anim.playing ? [{ text: `playing at ${anim.speed}×`, tone: 'green' as const, icon: IconPlayerPlay }] : []),
    ],
    readout: () => {
      const c = session.clip;
      return {
        left: c ? [['keys', String(countKeys(c))], ...(anim.chosen.length > 0 ? [['selected', String(anim.chosen.length)] as [string, string]] : []), ...(session.bone ? [['bone', session.bone.name + sideSuffix(session.bone.side)] as [string, string]] : [])] : [],
        right: c ? `${c.fps} fps · ${c.loop ? 'loop' : 'once'} ${(c.length / 1200).toFixed(2)} s` : '',
      };
    },
    menu: ['anim.play', 'anim.key'],
    commands: [
      { id: 'anim.play', title: 'Play or stop', group: 'Animate', keys: ['P'], icon: IconPlayerPlay, on: () => anim.playing, enabled: () => session.clip !== null, run: () => anim.play() },
      { id: 'anim.start', title: 'To the first frame', group: 'Animate', keys: ['Shift+,', '<'], icon: IconPlayerSkipBack, run: () => anim.scrub(0) },
      { id: 'anim.previous', title: 'One frame back', group: 'Animate', keys: [','], run: () => anim.step(-1) },
      { id: 'anim.next', title: 'One frame on', group: 'Animate', keys: ['.'], run: () => anim.step(1) },
      { id: 'anim.key', title: 'Set a key for the bone here', group: 'Animate', keys: ['S'], icon: IconKey, enabled: () => session.bone !== null && session.clip !== null && session.writable, run: () => keying.hold() },
      { id: 'anim.removeKeys', title: 'Remove the selected keys', group: 'Animate', keys: ['Delete'], enabled: () => anim.chosen.length > 0 && session.writable, run: () => {
        session.apply(removeKeysEdit, { clip: session.clip!.id, keys: anim.chosen });
        anim.chosen = [];
      } },
      { id: 'clip.new', title: 'New clip', group: 'Animate', enabled: () => session.writable, run: () => session.apply(addClipEdit, { name: 'Clip', frames: 24, fps: 24, loop: true }, (p) => ({ clip: p.clips.at(-1)!.id })) },
      { id: 'clip.delete', title: 'Delete the clip (to the bin)', group: 'Animate', enabled: () => session.clip !== null && session.writable, run: () => session.apply(deleteClipEdit, { clip: session.clip!.id }) },
      { id: 'anim.cancel', title: 'Let go without doing', group: 'Animate', keys: ['Esc'], run: () => {
        handles.pointer.cancel();
        anim.chosen = [];
      } },
    ],
    dispose: () => anim.play(false),
  };
}
