import { type Clip, type Project, type Side, TICKS } from '@sphalerite/core/model';
import {
  type CopiedKeys,
  type KeyRef,
  blendPoses,
  clipTime,
  dressedAt,
  framesIn,
  nearestFrame,
  sampleClip,
} from '@sphalerite/core/motion';
import { type Pose, REST_POSE } from '@sphalerite/core/rig';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';

/** Time and playing in Animate. */
export const useAnimate = defineStore('animate', () => {
  const session = useSession();
  /** In ticks; between frames only while playing. */
  const time = ref(0);
  const playing = ref(false);
  const speed = ref(1);
  const chosen = shallowRef<readonly KeyRef[]>([]);
  /** What the handle of the bone does. */
  const handle = ref<'turn' | 'move'>('turn');
  let raf = 0;
  let last = 0;

  /** What the bench shows: keys, curves, or what the parts do to the ground and to each other. */
  const sheet = ref<'keys' | 'curves' | 'ground'>('keys');
  /** Whether a turn or a move sets a key at once; else it waits for S. */
  const auto = ref(true);
  /** What is tried out at this moment and not keyed yet. */
  const loose = shallowRef<Pose>(REST_POSE);
  const pingPong = ref(false);
  let back = false;
  /** The stretch that is played, in ticks; null for the whole clip. */
  const range = ref<readonly [number, number] | null>(null);
  const onion = ref(false);
  const trail = ref(false);
  /** Lanes are shown whose name holds this. */
  const filter = ref('');
  const side = ref<Side | 'all'>('all');
  /** Another clip seen mixed into this one; nothing keeps it. */
  const blend = ref<{ readonly clip: string; readonly amount: number } | null>(null);
  const copied = shallowRef<CopiedKeys | null>(null);

  const clip = computed<Clip | null>(
    () => session.shown?.clips.find((c) => c.id === session.view.clip) ?? session.clip,
  );
  const poseAt = (ticks: number): Pose => {
    const c = clip.value,
      p = session.shown;
    if (!c || !p) return REST_POSE;
    const own = sampleClip(c, p.rig, ticks),
      b = blend.value,
      other = b && p.clips.find((o) => o.id === b.clip);
    return other
      ? blendPoses(p.rig, own, sampleClip(other, p.rig, clipTime(other, (ticks / c.length) * other.length)), b.amount)
      : own;
  };
  const pose = computed<Pose>(() =>
    loose.value.size === 0 ? poseAt(time.value) : new Map([...poseAt(time.value), ...loose.value]),
  );
  /** The project with sets of alternates wearing what the clip says at this moment. */
  const dressed = computed<Project | null>(() => session.shown && dressedAt(session.shown, clip.value, time.value));
  /** The pose as it is kept, without what is tried out. */
  const kept = computed<Pose>(() =>
    session.clip && session.project ? sampleClip(session.clip, session.project.rig, time.value) : REST_POSE,
  );
  const frames = computed(() => (clip.value ? framesIn(clip.value) : 0));

  function tick(now: number): void {
    const c = clip.value;
    if (!playing.value || !c) return;
    const [from, to] = range.value ?? [0, c.length];
    const past = ((now - last) / 1000) * TICKS * speed.value;
    let next = time.value + (back ? -past : past);
    last = now;
    if (next >= to || next <= from) {
      if (pingPong.value) {
        back = next >= to;
        next = Math.max(from, Math.min(to, next));
      } else if (c.loop || range.value)
        next = next >= to ? from + ((next - from) % Math.max(1, to - from)) : Math.max(from, next);
      else if (next >= to) {
        time.value = c.length;
        playing.value = false;
        return;
      }
    }
    time.value = next;
    raf = requestAnimationFrame(tick);
  }
  function play(on = !playing.value): void {
    cancelAnimationFrame(raf);
    playing.value = on;
    back = false;
    loose.value = REST_POSE;
    const c = clip.value;
    if (!on || !c) {
      if (c) time.value = nearestFrame(c, time.value);
      return;
    }
    const [from, to] = range.value ?? [0, c.length];
    if (time.value < from || time.value >= to) time.value = from;
    last = performance.now();
    raf = requestAnimationFrame(tick);
  }
  /** To a moment, on the nearest frame. */
  function scrub(ticks: number): void {
    if (playing.value) play(false);
    loose.value = REST_POSE;
    if (clip.value) time.value = nearestFrame(clip.value, ticks);
  }
  const step = (n: number): void => {
    if (clip.value) scrub(time.value + (n * TICKS) / clip.value.fps);
  };
  watch(
    () => session.view.clip,
    () => {
      play(false);
      time.value = 0;
      chosen.value = [];
      range.value = null;
      blend.value = null;
      loose.value = REST_POSE;
    },
  );
  return {
    time,
    playing,
    speed,
    chosen,
    handle,
    sheet,
    auto,
    loose,
    pingPong,
    range,
    onion,
    trail,
    filter,
    side,
    blend,
    copied,
    clip,
    pose,
    poseAt,
    dressed,
    kept,
    frames,
    play,
    scrub,
    step,
  };
});
