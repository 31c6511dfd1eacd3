import {
  IconArrowsLeftRight,
  IconArrowsMaximize,
  IconArrowsMove,
  IconGhost2,
  IconKey,
  IconPlayerPlay,
  IconPlayerSkipBack,
  IconRotate3d,
  IconRoute,
} from '@tabler/icons-vue';
import { type Clip, TICKS } from '@sphalerite/core/model';
import { type KeyRef, allKeys, copyKeys, mirroredKeys, nearestFrame } from '@sphalerite/core/motion';
import {
  addClipEdit,
  closeLoopEdit,
  deleteClipEdit,
  each,
  duplicateClipEdit,
  mirrorHalfEdit,
  pasteKeysEdit,
  removeKeysEdit,
  rippleClipEdit,
  savePoseEdit,
} from '@sphalerite/core/project';
import type { Command } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { openPartCommand } from '../shared/open-part';
import { renameByRule, renameInHand } from '../shared/rename-in-hand';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';
import { useKeying } from './keying';
import { poseOffsets, restKeys } from './pose-keys';
import { all, need, needsBone, needsClip, needsWriting } from '../../stores/needs';
import { say } from '../../words';

/** All that is done by command in Animate, but for letting go. */
export const animateCommands = (): Command[] => [
  ...playbackCommands(),
  ...lookCommands(),
  ...keyCommands(),
  ...timingCommands(),
  ...clipCommands(),
];

const clipOf = (): Clip => useSession().clip!;
const frame = (): number => TICKS / clipOf().fps;
const edits = all(needsClip, needsWriting);

function playbackCommands(): Command[] {
  const anim = useAnimate();
  return [
    {
      id: 'anim.play',
      title: 'Play or stop',
      group: 'Animate',
      keys: ['P'],
      icon: IconPlayerPlay,
      on: () => anim.playing,
      enabled: needsClip,
      run: () => anim.play(),
    },
    {
      id: 'anim.playAll',
      title: 'Play every clip, one after another',
      group: 'Animate',
      keys: ['Shift+P'],
      enabled: needsClip,
      run: () => anim.playAll(useSession().project!.clips.map((c) => c.id)),
    },
    {
      id: 'anim.start',
      title: 'To the first frame',
      group: 'Animate',
      keys: ['Shift+,', '<'],
      icon: IconPlayerSkipBack,
      run: () => anim.scrub(0),
    },
    { id: 'anim.previous', title: 'One frame back', group: 'Animate', keys: [','], run: () => anim.step(-1) },
    { id: 'anim.next', title: 'One frame on', group: 'Animate', keys: ['.'], run: () => anim.step(1) },
    {
      id: 'anim.pingPong',
      title: 'Play there and back',
      group: 'Animate',
      icon: IconArrowsLeftRight,
      on: () => anim.pingPong,
      run: () => (anim.pingPong = !anim.pingPong),
    },
    {
      id: 'anim.from',
      title: 'Play from here',
      group: 'Animate',
      keys: ['['],
      enabled: needsClip,
      run: () => (anim.range = [anim.time, Math.max(anim.time + frame(), anim.range?.[1] ?? clipOf().length)]),
    },
    {
      id: 'anim.to',
      title: 'Play up to here',
      group: 'Animate',
      keys: [']'],
      enabled: all(
        needsClip,
        need(() => anim.time > 0, 'it stands at the first frame'),
      ),
      run: () => (anim.range = [Math.min(anim.time - frame(), anim.range?.[0] ?? 0), anim.time]),
    },
  ];
}

/** Handles, what is drawn beside the figure, and which sheet the bench shows. */
function lookCommands(): Command[] {
  const anim = useAnimate();
  return [
    {
      id: 'anim.turn',
      title: 'Rotate the bone by rings',
      group: 'Animate',
      keys: ['R'],
      icon: IconRotate3d,
      on: () => anim.handle === 'turn',
      run: () => (anim.handle = 'turn'),
    },
    {
      id: 'anim.move',
      title: 'Move the bone by arrows',
      group: 'Animate',
      keys: ['A'],
      icon: IconArrowsMove,
      on: () => anim.handle === 'move',
      run: () => (anim.handle = 'move'),
    },
    {
      id: 'anim.scale',
      title: 'Scale the bone by pulling',
      group: 'Animate',
      keys: ['W'],
      icon: IconArrowsMaximize,
      on: () => anim.handle === 'scale',
      run: () => (anim.handle = 'scale'),
    },
    {
      id: 'anim.onion',
      title: 'Onion skin: the moments before and after',
      group: 'Animate',
      keys: ['Shift+O'],
      icon: IconGhost2,
      on: () => anim.onion,
      run: () => (anim.onion = !anim.onion),
    },
    {
      id: 'anim.trail',
      title: 'Motion trail of the joint in hand',
      group: 'Animate',
      keys: ['T'],
      icon: IconRoute,
      on: () => anim.trail,
      run: () => (anim.trail = !anim.trail),
    },
    {
      id: 'anim.sheetKeys',
      title: 'Keys in lanes',
      group: 'Animate',
      keys: ['1'],
      on: () => anim.sheet === 'keys',
      run: () => (anim.sheet = 'keys'),
    },
    {
      id: 'anim.sheetCurves',
      title: 'Curves of the bone in hand',
      group: 'Animate',
      keys: ['2'],
      on: () => anim.sheet === 'curves',
      run: () => (anim.sheet = 'curves'),
    },
    {
      id: 'anim.sheetGround',
      title: 'Ground and contact',
      group: 'Animate',
      keys: ['3'],
      on: () => anim.sheet === 'ground',
      run: () => (anim.sheet = 'ground'),
    },
  ];
}

function keyCommands(): Command[] {
  const session = useSession();
  const anim = useAnimate();
  const notices = useNotices();
  const keying = useKeying();
  /** The keys that commands mean: those chosen, else all at this frame. */
  const meant = (): readonly KeyRef[] =>
    anim.chosen.length > 0
      ? anim.chosen
      : session.clip
        ? allKeys(session.clip).filter((k) => k.time === nearestFrame(session.clip!, anim.time))
        : [];
  function copy(): void {
    const refs = meant();
    if (refs.length === 0) {
      notices.say(say('keys.none'), { kind: 'error' });
      return;
    }
    anim.copied = copyKeys(clipOf(), refs);
    notices.say(say('keys.copied', { n: refs.length }));
  }
  function paste(mirrored: boolean): void {
    const keys = anim.copied;
    if (!keys) return;
    const copied = mirrored ? mirroredKeys(keys, session.project!.rig) : keys,
      at = nearestFrame(clipOf(), anim.time);
    if (
      !session.apply(pasteKeysEdit, {
        clip: clipOf().id,
        copied,
        at,
        ...(mirrored ? { what: say('keys.pasteMirrored', { n: copied.keys.length }) } : {}),
      })
    )
      return;
    anim.chosen = copied.keys.map((k) => ({ bone: k.bone, channel: k.channel, time: k.key.time + at }));
  }
  return [
    {
      id: 'anim.key',
      title: 'Set a key for the bone here',
      group: 'Animate',
      keys: ['S'],
      icon: IconKey,
      enabled: all(needsBone, edits),
      run: () => keying.hold(),
    },
    {
      id: 'anim.removeKeys',
      title: 'Remove the selected keys',
      group: 'Animate',
      keys: ['Delete'],
      enabled: all(
        needsWriting,
        need(() => anim.chosen.length > 0, 'choose keys first'),
      ),
      run: () => {
        session.apply(removeKeysEdit, { clip: session.clip!.id, keys: [...anim.chosen] });
        anim.chosen = [];
      },
    },
    {
      id: 'anim.auto',
      title: 'Auto-key: a turn sets a key at once',
      group: 'Animate',
      keys: ['U'],
      on: () => anim.auto,
      run: () => (anim.auto = !anim.auto),
    },
    {
      id: 'anim.all',
      title: 'Choose every key',
      group: 'Animate',
      keys: ['Ctrl+A'],
      enabled: needsClip,
      run: () => (anim.chosen = allKeys(clipOf())),
    },
    {
      id: 'anim.copy',
      title: 'Copy the keys',
      group: 'Animate',
      keys: ['Ctrl+C'],
      enabled: needsClip,
      run: copy,
    },
    {
      id: 'anim.paste',
      title: 'Paste the keys here',
      group: 'Animate',
      keys: ['Ctrl+V'],
      enabled: all(
        edits,
        need(() => anim.copied !== null, 'copy keys or a pose first'),
      ),
      run: () => paste(false),
    },
    {
      id: 'anim.pasteMirrored',
      title: 'Paste the keys here on the other side',
      group: 'Animate',
      keys: ['Ctrl+Shift+V'],
      enabled: all(
        edits,
        need(() => anim.copied !== null, 'copy keys or a pose first'),
      ),
      run: () => paste(true),
    },
  ];
}

/** Frames put in and taken out, halves and loops, whole poses. */
function timingCommands(): Command[] {
  const session = useSession();
  const anim = useAnimate();
  return [
    {
      id: 'anim.insert',
      title: 'Put a frame in here: what follows moves on',
      group: 'Animate',
      keys: ['Shift+.', '>'],
      enabled: edits,
      run: () =>
        session.apply(rippleClipEdit, { clip: clipOf().id, from: nearestFrame(clipOf(), anim.time), by: frame() }),
    },
    {
      id: 'anim.takeOut',
      title: 'Take the next frame out: what follows comes nearer',
      group: 'Animate',
      keys: ['Shift+Backspace'],
      enabled: edits,
      run: () =>
        session.apply(rippleClipEdit, { clip: clipOf().id, from: nearestFrame(clipOf(), anim.time), by: -frame() }),
    },
    {
      id: 'anim.mirrorHalf',
      title: 'Half a walk makes the other half',
      group: 'Animate',
      keys: ['Shift+M'],
      enabled: edits,
      run: () => session.apply(mirrorHalfEdit, { clip: clipOf().id }),
    },
    {
      id: 'anim.closeLoop',
      title: 'Close the loop: the last pose becomes the first',
      group: 'Animate',
      enabled: edits,
      run: () => session.apply(closeLoopEdit, { clip: clipOf().id }),
    },
    {
      id: 'anim.keepPose',
      title: 'Keep this pose on the shelf',
      group: 'Animate',
      keys: ['Shift+S'],
      enabled: edits,
      run: () =>
        session.apply(savePoseEdit, {
          name: `Pose ${(session.project?.poses.length ?? 0) + 1}`,
          bones: poseOffsets(session.project!, anim.pose, anim.spinOf),
        }),
    },
    {
      id: 'anim.resetPose',
      title: 'Rest pose: key it here',
      group: 'Animate',
      keys: ['Shift+R'],
      enabled: edits,
      run: () =>
        session.apply(pasteKeysEdit, {
          clip: clipOf().id,
          copied: restKeys(clipOf()),
          at: nearestFrame(clipOf(), anim.time),
          what: 'Reset the pose',
        }),
    },
  ];
}

function clipCommands(): Command[] {
  const session = useSession();
  return [
    {
      id: 'clip.duplicate',
      title: 'Duplicate the clip',
      group: 'Animate',
      keys: ['Ctrl+D'],
      enabled: edits,
      run: () => session.apply(duplicateClipEdit, { clip: clipOf().id }, (p) => ({ clip: p.clips.at(-1)!.id })),
    },
    {
      id: 'clip.new',
      title: 'New clip',
      group: 'Animate',
      enabled: needsWriting,
      run: () =>
        session.apply(addClipEdit, { name: 'Clip', frames: 24, fps: 24, loop: true }, (p) => ({
          clip: p.clips.at(-1)!.id,
        })),
    },
    renameInHand('clip', 'Animate'),
    renameByRule('clip', 'Animate'),
    openPartCommand('Animate'),
    {
      id: 'clip.delete',
      title: 'Delete the clip (to the bin)',
      group: 'Animate',
      enabled: edits,
      run: () =>
        session.apply(
          each(deleteClipEdit),
          session.view.chosen.clip.map((clip) => ({ clip })),
        ),
    },
  ];
}
