import { type Vec3, lerp } from '@sphalerite/core/math';
import type { Clip, Id, Project, Side } from '@sphalerite/core/model';
import {
  type CopiedKeys,
  type KeyRef,
  blendPoses,
  clipTime,
  withAlternatesAt,
  framesIn,
  sampleClip,
  sampleKeys,
} from '@sphalerite/core/motion';
import { type Pose, REST_POSE } from '@sphalerite/core/rig';
import { defineStore } from 'pinia';
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';
import { usePlayback } from './playback';

/** Time and playing in Animate. */
export const useAnimate = defineStore('animate', () => {
  const session = useSession();
  const chosen = shallowRef<readonly KeyRef[]>([]);
  /** What the handle of the bone does. */
  const handle = ref<'turn' | 'move' | 'scale'>('turn');
  /** What the bench shows: keys, curves, or what the parts do to the ground and to each other. */
  const sheet = ref<'keys' | 'curves' | 'ground'>('keys');
  /** Whether a turn or a move sets a key at once; else it waits for S. */
  const auto = ref(true);
  /** What is tried out at this moment and not keyed yet. */
  const loose = shallowRef<Pose>(REST_POSE);
  /** Whether keys that are retimed come to stand on whole frames. */
  const wholeFrames = ref(true);
  const onion = ref(false);
  const trail = ref(false);
  /** Lanes are shown whose name holds this. */
  const filter = ref('');
  const side = ref<Side | 'all'>('all');
  /** Another clip seen mixed into this one; nothing keeps it. */
  const blend = ref<{ readonly clip: string; readonly amount: number } | null>(null);
  const copied = shallowRef<CopiedKeys | null>(null);

  const clip = computed<Clip | null>(
    () => session.shown?.clips.find((c) => c.id === session.hand.clip) ?? session.clip,
  );
  /** Clips that are still to be played, one after another. */
  const tour = shallowRef<readonly Id[]>([]);
  const { time, rewind, ...playback } = usePlayback(clip, () => (loose.value = REST_POSE), onward);
  /** On to the next clip of the tour; false when there is none. */
  function onward(): boolean {
    if (tour.value.length === 0) return false;
    void playAll(tour.value);
    return true;
  }
  /** Plays clips once each, one after another. */
  async function playAll([first, ...rest]: readonly Id[]): Promise<void> {
    if (first === undefined) return;
    tour.value = [];
    session.choose({ clip: first });
    // The other clip rewinds first.
    await nextTick();
    time.value = 0;
    playback.play(true);
    tour.value = rest;
  }
  const play = (on?: boolean): void => {
    tour.value = [];
    playback.play(on);
  };
  const scrub = (ticks: number): void => {
    tour.value = [];
    playback.scrub(ticks);
  };
  const poseAt = (ticks: number): Pose => {
    const c = clip.value,
      p = session.shown,
      b = blend.value;
    if (!c || !p) return REST_POSE;
    const own = sampleClip(c, p.rig, ticks);
    const other = b && p.clips.find((o) => o.id === b.clip);
    if (!other) return own;
    const there = clipTime(other, (ticks / c.length) * other.length);
    return blendPoses(p.rig, own, sampleClip(other, p.rig, there), b.amount);
  };
  const pose = computed<Pose>(() =>
    loose.value.size === 0 ? poseAt(time.value) : new Map([...poseAt(time.value), ...loose.value]),
  );
  /** The project with sets of alternates wearing what the clip says at this moment. */
  const withAlternates = computed<Project | null>(
    () => session.shown && withAlternatesAt(session.shown, clip.value, time.value),
  );
  /** The pose as it is kept, without what is tried out. */
  const kept = computed<Pose>(() =>
    session.clip && session.project ? sampleClip(session.clip, session.project.rig, time.value) : REST_POSE,
  );
  /** How far a bone has spun at the moment that is shown: an axis of its own times radians. */
  function spinOf(bone: Id): Vec3 {
    const hinge = session.clip?.lanes.find((l) => l.bone === bone)?.hinge ?? [];
    return sampleKeys(hinge, time.value, lerp) ?? [0, 0, 0];
  }
  const frames = computed(() => (clip.value ? framesIn(clip.value) : 0));

  watch(
    () => session.hand.clip,
    () => {
      tour.value = [];
      rewind();
      chosen.value = [];
      blend.value = null;
      loose.value = REST_POSE;
    },
  );
  return {
    time,
    ...playback,
    play,
    scrub,
    tour,
    playAll,
    chosen,
    handle,
    sheet,
    auto,
    loose,
    wholeFrames,
    onion,
    trail,
    filter,
    side,
    blend,
    copied,
    clip,
    pose,
    poseAt,
    withAlternates,
    kept,
    spinOf,
    frames,
  };
});
