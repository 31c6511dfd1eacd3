import {
  IconArrowsExchange,
  IconArrowsLeftRight,
  IconKey,
  IconPlayerPlay,
  IconPlayerSkipBack,
  IconRoute,
  IconGhost2,
} from '@tabler/icons-vue';
import { MAT4_IDENTITY, transformPoint } from '@sphalerite/core/math';
import { type Clip, type Project, TICKS, sideSuffix } from '@sphalerite/core/model';
import {
  type KeyRef,
  allKeys,
  clipTime,
  copyKeys,
  countKeys,
  frameOf,
  frameTimes,
  mirroredKeys,
  nearestFrame,
} from '@sphalerite/core/motion';
import {
  addClipEdit,
  closeLoopEdit,
  deleteClipEdit,
  duplicateClipEdit,
  mirrorHalfEdit,
  pasteKeysEdit,
  removeKeysEdit,
  rippleClipEdit,
  savePoseEdit,
} from '@sphalerite/core/project';
import { REST_POSE, worldMatrices } from '@sphalerite/core/rig';
import { computed } from 'vue';
import type { ScreenControl } from '../../shell/screen';
import { useNotices } from '../../stores/notices';
import type { SceneCopy } from '../../viewport/viewport';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY } from '../../viewport/overlay';
import { boneHandles } from '../shared/bone-handles';
import { useAnimate } from './animate-state';
import { shifted } from '../shared/pose-shift';
import { useKeying } from './keying';
import { poseOffsets, restKeys } from './pose-keys';

const AXES = ['X', 'Y', 'Z'] as const;

export function animateControl(): ScreenControl {
  const session = useSession();
  const view = useView();
  const anim = useAnimate();
  const keying = useKeying();
  const notices = useNotices();
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
  const clipOf = (): Clip => session.clip!;
  const frame = (): number => TICKS / clipOf().fps;
  /** The moments around this one, faintly: two before, two after. */
  function onion(p: Project): SceneCopy[] {
    const c = anim.clip;
    if (!anim.onion || anim.playing || !c) return [];
    const by = Math.max(1, Math.round(c.fps / 8)) * (TICKS / c.fps);
    return [-2, -1, 1, 2]
      .map((k) => anim.time + k * by)
      .filter((t) => c.loop || (t >= 0 && t <= c.length))
      .map((t) => ({ palettes: p.palettes, shift: [0, 0, 0] as const, pose: anim.poseAt(clipTime(c, t)) }));
  }
  /** The way of the joint in hand through the whole clip. */
  const trail = computed(() => {
    const c = anim.clip,
      p = session.shown,
      bone = session.view.bone;
    if (!anim.trail || !c || !p || !bone || !p.rig.bones.some((b) => b.id === bone)) return null;
    const at = frameTimes(c).map((t) => transformPoint(worldMatrices(p.rig, anim.poseAt(t)).get(bone)!, [0, 0, 0]));
    return { strokes: at.slice(1).map((to, i) => ({ from: at[i]!, to, tone: 'honey' as const })) };
  });
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
      notices.say('No key is chosen, and none stands at this frame.', { kind: 'error' });
      return;
    }
    anim.copied = copyKeys(clipOf(), refs);
    notices.say(`${refs.length === 1 ? 'A key is' : `${refs.length} keys are`} copied.`);
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
        ...(mirrored ? { what: `Paste ${copied.keys.length} keys mirrored` } : {}),
      })
    )
      return;
    anim.chosen = copied.keys.map((k) => ({ bone: k.bone, channel: k.channel, time: k.key.time + at }));
  }
  const edits = (): boolean => session.clip !== null && session.writable;
  return {
    scene: () => {
      const p = anim.dressed;
      return p ? { project: p, pose: anim.pose, without: () => false, faint: () => false, copies: onion(p) } : null;
    },
    overlay: () =>
      anim.playing
        ? NO_OVERLAY
        : { ...NO_OVERLAY, ...handles.overlay(), ...(trail.value ? { lattice: MAT4_IDENTITY, ...trail.value } : {}) },
    pointer: handles.pointer,
    trail: () => [
      session.project?.name ?? '',
      session.clip?.name ?? 'no clip',
      ...(session.clip ? [`frame ${frameOf(session.clip, anim.time)}`] : []),
    ],
    chips: () => [
      ...(session.clip && !anim.playing
        ? [
            {
              text: !anim.auto
                ? anim.loose.size > 0
                  ? `${anim.loose.size === 1 ? 'a bone' : `${anim.loose.size} bones`} tried out: S keys`
                  : 'tried out until S keys it'
                : anim.handle === 'move'
                  ? 'moving a bone sets a key'
                  : 'turning a bone sets a key',
              tone: 'resin' as const,
              icon: IconKey,
            },
          ]
        : []),
      ...(anim.blend
        ? [
            {
              text: `${Math.round(anim.blend.amount * 100)} % of ${session.project?.clips.find((c) => c.id === anim.blend?.clip)?.name ?? ''} mixed in`,
              tone: 'green' as const,
              icon: IconArrowsExchange,
              run: () => (anim.blend = null),
              does: 'end',
            },
          ]
        : []),
      ...(anim.range
        ? [
            {
              text: `frames ${frameOf(session.clip!, anim.range[0])} to ${frameOf(session.clip!, anim.range[1])}`,
              tone: 'green' as const,
              run: () => (anim.range = null),
              does: 'all',
            },
          ]
        : []),
      ...(anim.playing ? [{ text: `playing at ${anim.speed}×`, tone: 'green' as const, icon: IconPlayerPlay }] : []),
    ],
    readout: () => {
      const c = session.clip;
      return {
        left: c
          ? [
              ['keys', String(countKeys(c))],
              ...(anim.chosen.length > 0 ? [['selected', String(anim.chosen.length)] as [string, string]] : []),
              ...(session.bone
                ? [['bone', session.bone.name + sideSuffix(session.bone.side)] as [string, string]]
                : []),
            ]
          : [],
        right: c ? `${c.fps} fps · ${c.loop ? 'loop' : 'once'} ${(c.length / 1200).toFixed(2)} s` : '',
      };
    },
    menu: ['anim.play', 'anim.key'],
    commands: [
      {
        id: 'anim.play',
        title: 'Play or stop',
        group: 'Animate',
        keys: ['P'],
        icon: IconPlayerPlay,
        on: () => anim.playing,
        enabled: () => session.clip !== null,
        run: () => anim.play(),
      },
      {
        id: 'anim.turn',
        title: 'Turn the bone by rings',
        group: 'Animate',
        keys: ['R'],
        on: () => anim.handle === 'turn',
        run: () => (anim.handle = 'turn'),
      },
      {
        id: 'anim.move',
        title: 'Move the bone by arrows',
        group: 'Animate',
        keys: ['A'],
        on: () => anim.handle === 'move',
        run: () => (anim.handle = 'move'),
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
        id: 'anim.key',
        title: 'Set a key for the bone here',
        group: 'Animate',
        keys: ['S'],
        icon: IconKey,
        enabled: () => session.bone !== null && session.clip !== null && session.writable,
        run: () => keying.hold(),
      },
      {
        id: 'anim.removeKeys',
        title: 'Remove the selected keys',
        group: 'Animate',
        keys: ['Delete'],
        enabled: () => anim.chosen.length > 0 && session.writable,
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
        enabled: () => session.clip !== null,
        run: () => (anim.chosen = allKeys(clipOf())),
      },
      {
        id: 'anim.copy',
        title: 'Copy the keys',
        group: 'Animate',
        keys: ['Ctrl+C'],
        enabled: () => session.clip !== null,
        run: copy,
      },
      {
        id: 'anim.paste',
        title: 'Paste the keys here',
        group: 'Animate',
        keys: ['Ctrl+V'],
        enabled: () => edits() && anim.copied !== null,
        run: () => paste(false),
      },
      {
        id: 'anim.pasteMirrored',
        title: 'Paste the keys here on the other side',
        group: 'Animate',
        keys: ['Ctrl+Shift+V'],
        enabled: () => edits() && anim.copied !== null,
        run: () => paste(true),
      },
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
        title: 'The last pose becomes the first',
        group: 'Animate',
        enabled: edits,
        run: () => session.apply(closeLoopEdit, { clip: clipOf().id }),
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
        enabled: () => session.clip !== null,
        run: () => (anim.range = [anim.time, Math.max(anim.time + frame(), anim.range?.[1] ?? clipOf().length)]),
      },
      {
        id: 'anim.to',
        title: 'Play up to here',
        group: 'Animate',
        keys: [']'],
        enabled: () => session.clip !== null && anim.time > 0,
        run: () => (anim.range = [Math.min(anim.time - frame(), anim.range?.[0] ?? 0), anim.time]),
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
            bones: poseOffsets(session.project!, anim.pose),
          }),
      },
      {
        id: 'anim.resetPose',
        title: 'Key the whole figure at rest here',
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
        enabled: () => session.writable,
        run: () =>
          session.apply(addClipEdit, { name: 'Clip', frames: 24, fps: 24, loop: true }, (p) => ({
            clip: p.clips.at(-1)!.id,
          })),
      },
      {
        id: 'clip.delete',
        title: 'Delete the clip (to the bin)',
        group: 'Animate',
        enabled: () => session.clip !== null && session.writable,
        run: () => session.apply(deleteClipEdit, { clip: session.clip!.id }),
      },
      {
        id: 'anim.cancel',
        title: 'Let go without doing',
        group: 'Animate',
        keys: ['Esc'],
        run: () => {
          handles.pointer.cancel();
          anim.loose = REST_POSE;
          anim.chosen = [];
        },
      },
    ],
    tools: ['anim.onion', 'anim.trail'],
    dispose: () => anim.play(false),
  };
}
