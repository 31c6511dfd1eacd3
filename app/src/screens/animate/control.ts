import { IconKey, IconPlayerPlay, IconPlayerSkipBack } from '@tabler/icons-vue';
import { sideSuffix } from '@sphalerite/core/model';
import { countKeys, frameOf } from '@sphalerite/core/motion';
import { addClipEdit, deleteClipEdit, removeKeysEdit } from '@sphalerite/core/project';
import type { ScreenControl } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY } from '../../viewport/overlay';
import { boneHandles } from '../shared/bone-handles';
import { useAnimate } from './animate-state';
import { shifted } from '../shared/pose-shift';
import { useKeying } from './keying';

const AXES = ['X', 'Y', 'Z'] as const;

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
    arrows: () => (anim.handle === 'move' ? 'world' : null),
    enabled: () => session.writable && !anim.playing && session.clip !== null,
    turn(bone, q, degrees, axis, done) {
      view.measure = done ? '' : `turn ${AXES[axis]!} ${degrees}°`;
      keying.turn(bone, q, done);
    },
    move(bone, delta, done) {
      view.measure = done ? '' : `moved ${delta.map((v) => (v > 0 ? `+${v}` : v)).join(', ')}`;
      // While the hand is down the pose on screen has the shift already; it is counted from where the drag began.
      if (done) session.preview = null;
      keying.move(bone, shifted(session.project!, anim.kept, bone, delta).t, done);
    },
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
      ...(session.clip && !anim.playing ? [{ text: anim.handle === 'move' ? 'moving a bone sets a key' : 'turning a bone sets a key', tone: 'resin' as const, icon: IconKey }] : []),
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
      { id: 'anim.turn', title: 'Turn the bone by rings', group: 'Animate', keys: ['R'], on: () => anim.handle === 'turn', run: () => (anim.handle = 'turn') },
      { id: 'anim.move', title: 'Move the bone by arrows', group: 'Animate', keys: ['A'], on: () => anim.handle === 'move', run: () => (anim.handle = 'move') },
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
