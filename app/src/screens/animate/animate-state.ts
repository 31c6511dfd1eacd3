import { type Clip, TICKS } from '@sphalerite/core/model';
import { type KeyRef, clipTime, framesIn, nearestFrame, sampleClip } from '@sphalerite/core/motion';
import { type Pose, REST_POSE } from '@sphalerite/core/rig';
import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { useSession } from '../../stores/session';

/** Time and playing in Animate. */
export const useAnimate = defineStore('animate', () => {
  const session = useSession();
  /** In ticks; between frames only while playing. */
  const time = ref(0);
  const playing = ref(false);
  const speed = ref(1);
  const chosen = ref<KeyRef[]>([]);
  /** What the handle of the bone does. */
  const handle = ref<'turn' | 'move'>('turn');
  let raf = 0;
  let last = 0;

  const clip = computed<Clip | null>(() => session.shown?.clips.find((c) => c.id === session.view.clip) ?? session.clip);
  const pose = computed<Pose>(() => (clip.value && session.shown ? sampleClip(clip.value, session.shown.rig, time.value) : REST_POSE));
  /** The pose as it is kept, without what is tried out. */
  const kept = computed<Pose>(() => (session.clip && session.project ? sampleClip(session.clip, session.project.rig, time.value) : REST_POSE));
  const frames = computed(() => (clip.value ? framesIn(clip.value) : 0));

  function tick(now: number): void {
    const c = clip.value;
    if (!playing.value || !c) return;
    const next = time.value + ((now - last) / 1000) * TICKS * speed.value;
    last = now;
    if (!c.loop && next >= c.length) {
      time.value = c.length;
      playing.value = false;
      return;
    }
    time.value = clipTime(c, next);
    raf = requestAnimationFrame(tick);
  }
  function play(on = !playing.value): void {
    cancelAnimationFrame(raf);
    playing.value = on;
    const c = clip.value;
    if (!on || !c) {
      if (c) time.value = nearestFrame(c, time.value);
      return;
    }
    if (!c.loop && time.value >= c.length) time.value = 0;
    last = performance.now();
    raf = requestAnimationFrame(tick);
  }
  /** To a moment, on the nearest frame. */
  function scrub(ticks: number): void {
    if (playing.value) play(false);
    if (clip.value) time.value = nearestFrame(clip.value, ticks);
  }
  const step = (n: number): void => {
    if (clip.value) scrub(time.value + (n * TICKS) / clip.value.fps);
  };
  watch(() => session.view.clip, () => {
    play(false);
    time.value = 0;
    chosen.value = [];
  });
  return { time, playing, speed, chosen, handle, clip, pose, kept, frames, play, scrub, step };
});
