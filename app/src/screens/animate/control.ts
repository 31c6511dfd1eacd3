import { IconArrowsExchange, IconKey, IconLock, IconPlayerPlay } from '@tabler/icons-vue';
import { MAT4_IDENTITY, transformPoint } from '@sphalerite/core/math';
import { type Project, TICKS, sideSuffix, steeringBones } from '@sphalerite/core/model';
import { clipTime, countKeys, frameOf, frameTimes } from '@sphalerite/core/motion';
import { REST_POSE, worldMatrices } from '@sphalerite/core/rig';
import { computed } from 'vue';
import type { Chip, ScreenControl } from '../../shell/screen';
import { animateCommands } from './animate-commands';
import type { Beside } from '../../viewport/viewport';
import { gather } from '@sphalerite/core/scene';
import { bonesExtent } from '../shared/bones-extent';
import { runCommand } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY, type Stroke3 } from '../../viewport/overlay';
import { boneLookCommands } from '../shared/bone-looks';
import { boneHandles } from '../shared/bone-handles';
import { useAnimate } from './animate-state';
import { shifted } from '../shared/pose-shift';
import { laneCommands } from './lane-commands';
import { useKeying } from './keying';
import { useClipContacts } from '../shared/clip-contacts';
import { floorLines } from './floor-lines';
import { amountText } from '../../tools/gizmo';
import { say } from '../../words';

const AXES = ['X', 'Y', 'Z'] as const;

/** What becomes of a turn or a move: a key at once, or a try of `loose` bones that waits for one. */
function keyingText(auto: boolean, loose: number, handle: 'turn' | 'move' | 'scale'): string {
  if (auto)
    return { move: 'moving a bone sets a key', turn: 'turning a bone sets a key', scale: 'scaling a bone sets a key' }[
      handle
    ];
  if (loose === 0) return 'tried out until S keys it';
  return say('bones.tried', { n: loose });
}

/** Whether the clip in hand is kept by a seal. */
function isSealed(): boolean {
  const { project, clip } = useSession();
  return clip !== null && (project?.seal?.clips.includes(clip.id) ?? false);
}

/** Live guides of Animate. */
function animateChips(): Chip[] {
  const session = useSession();
  const anim = useAnimate();
  return [
    ...(isSealed()
      ? [
          {
            text: say('clips.sealed', { rig: session.project!.seal!.rig }),
            tone: 'resin' as const,
            icon: IconLock,
            run: () => void runCommand('go.rig').then(() => runCommand('rig.unseal')),
            does: 'unseal…',
          },
        ]
      : []),
    ...(session.clip && !anim.playing && !isSealed()
      ? [
          {
            text: keyingText(anim.auto, anim.loose.size, anim.handle),
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
    ...(anim.tour.length > 0
      ? [
          {
            text: say('clips.toCome', { n: anim.tour.length }),
            tone: 'green' as const,
            run: () => anim.play(false),
            does: 'stop',
          },
        ]
      : []),
    ...(anim.playing ? [{ text: `playing at ${anim.speed}×`, tone: 'green' as const, icon: IconPlayerPlay }] : []),
  ];
}

export function animateControl(): ScreenControl {
  const session = useSession();
  const view = useView();
  const anim = useAnimate();
  const keying = useKeying();
  const steers = (bone: string | null): boolean =>
    bone !== null && session.shown !== null && steeringBones(session.shown.rig).has(bone);
  const handles = boneHandles({
    project: () => session.shown,
    pose: () => anim.pose,
    basePose: () => anim.pose,
    selected: () => session.hand.bone,
    chosen: () => session.view.chosen.bone,
    select: (bone, more) => session.pick('bone', bone, { ctrlKey: more, metaKey: false, shiftKey: false }, []),
    // A goal is moved, whatever bones are.
    mode: () => (steers(session.hand.bone) ? 'move' : anim.handle),
    even: () => !view.apart,
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
    scale(bone, s, by, done) {
      view.measure = done ? '' : `scale ${amountText(by)}`;
      keying.scale(bone, s, done);
    },
    cancel() {
      session.preview = null;
      view.measure = '';
    },
  });
  /** The moments around this one, faintly: two before, two after. */
  function onion(p: Project): Beside[] {
    const c = anim.clip;
    if (!anim.onion || anim.playing || !c) return [];
    const by = Math.max(1, Math.round(c.fps / 8)) * (TICKS / c.fps);
    return [-2, -1, 1, 2]
      .map((k) => anim.time + k * by)
      .filter((t) => c.loop || (t >= 0 && t <= c.length))
      .map((t) => ({
        list: gather(p, { of: 'rig', pose: anim.poseAt(clipTime(c, t)) }),
        shift: [0, 0, 0] as const,
        moment: true,
      }));
  }
  /** The way of the joint in hand through the whole clip. */
  const trail = computed(() => {
    const c = anim.clip,
      p = session.shown,
      bone = session.hand.bone;
    if (!anim.trail || !c || !p || !bone || !p.rig.bones.some((b) => b.id === bone)) return null;
    const at = frameTimes(c).map((t) => transformPoint(worldMatrices(p.rig, anim.poseAt(t)).get(bone)!, [0, 0, 0]));
    return at.slice(1).map((to, i) => ({ from: at[i]!, to, tone: 'honey' as const }));
  });
  const contacts = useClipContacts();
  /** The ground of the clip, where it has one of its own, as far as it has gone by now. */
  function ground(): Stroke3[] {
    const c = anim.clip;
    if (!c?.floor) return [];
    const pace = contacts.still ? 0 : (contacts.rows.get(c.id)?.contact.ground[1] ?? 0);
    return floorLines(c, (pace * anim.time * c.fps) / TICKS);
  }
  return {
    scene: () => {
      const project = anim.withAlternates,
        { pose } = anim;
      return project && { project, pose, list: gather(project, { of: 'rig', pose }), besides: onion(project) };
    },
    overlay: () =>
      anim.playing
        ? NO_OVERLAY
        : {
            ...NO_OVERLAY,
            ...handles.overlay(),
            lattice: MAT4_IDENTITY,
            strokes: [...(trail.value ?? []), ...ground()],
          },
    pointer: handles.pointer,
    inHand: () =>
      bonesExtent(anim.chosen.length > 0 ? [...new Set(anim.chosen.map((k) => k.bone))] : session.view.chosen.bone),
    trail: () => [
      session.project?.name ?? '',
      session.clip?.name ?? 'no clip',
      ...(session.clip ? [`frame ${frameOf(session.clip, anim.time)}`] : []),
    ],
    chips: animateChips,
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
        right: c ? `${c.fps} fps · ${c.loop ? 'loop' : 'once'} ${(c.length / TICKS).toFixed(2)} s` : '',
      };
    },
    menu: ['anim.play', 'anim.key'],
    commands: [
      ...animateCommands(),
      ...boneLookCommands(),
      ...laneCommands(),
      {
        id: 'anim.cancel',
        title: 'Cancel what is under way',
        group: 'Animate',
        keys: ['Esc'],
        run: () => {
          handles.pointer.cancel();
          anim.loose = REST_POSE;
          anim.chosen = [];
        },
      },
    ],
    tools: ['anim.turn', 'anim.move', 'anim.scale', 'anim.onion', 'anim.trail', 'bones.look', 'controls.look'],
    dispose: () => anim.play(false),
  };
}
