import { type Clip, TICKS } from '@sphalerite/core/model';
import { nearestFrame } from '@sphalerite/core/motion';
import { type ComputedRef, ref } from 'vue';

/**
 * The moment of a clip that is shown, and playing it. `letGo` is called before another moment is shown: what was tried
 * out at this one is over. `ended` is asked at the end of the clip: whether something else goes on from there.
 */
export function usePlayback(clip: ComputedRef<Clip | null>, letGo: () => void, ended: () => boolean) {
  /** In ticks; between frames only while playing. */
  const time = ref(0);
  const playing = ref(false);
  const speed = ref(1);
  const pingPong = ref(false);
  /** The stretch that is played, in ticks; null for the whole clip. */
  const range = ref<readonly [number, number] | null>(null);
  let back = false;
  let request = 0;
  let last = 0;

  /** The moment after `next` at the ends of what is played; null when playing ends there. */
  function atEnds(next: number, c: Clip): number | null {
    const [from, to] = range.value ?? [0, c.length];
    if (next > from && next < to) return next;
    if (pingPong.value) {
      back = next >= to;
      return Math.max(from, Math.min(to, next));
    }
    if (c.loop || range.value) return next >= to ? from + ((next - from) % Math.max(1, to - from)) : from;
    return next >= to ? null : next;
  }
  function tick(now: number): void {
    const c = clip.value;
    if (!playing.value || !c) return;
    const past = ((now - last) / 1000) * TICKS * speed.value;
    last = now;
    const to = time.value + (back ? -past : past);
    if (to >= c.length && ended()) return;
    const next = atEnds(to, c);
    if (next === null) {
      time.value = c.length;
      playing.value = false;
      return;
    }
    time.value = next;
    request = requestAnimationFrame(tick);
  }
  function play(on = !playing.value): void {
    cancelAnimationFrame(request);
    playing.value = on;
    back = false;
    letGo();
    const c = clip.value;
    if (!on || !c) {
      if (c) time.value = nearestFrame(c, time.value);
      return;
    }
    const [from, to] = range.value ?? [0, c.length];
    if (time.value < from || time.value >= to) time.value = from;
    last = performance.now();
    request = requestAnimationFrame(tick);
  }
  /** To a moment, on the nearest frame. */
  function scrub(ticks: number): void {
    if (playing.value) play(false);
    letGo();
    if (clip.value) time.value = nearestFrame(clip.value, ticks);
  }
  function step(frames: number): void {
    if (clip.value) scrub(time.value + (frames * TICKS) / clip.value.fps);
  }
  /** To the beginning of another clip. */
  function rewind(): void {
    play(false);
    time.value = 0;
    range.value = null;
  }
  return { time, playing, speed, pingPong, range, play, scrub, step, rewind };
}
