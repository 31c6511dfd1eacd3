import type { Camera, Shot } from '@sphalerite/core/model';
import {
  type Film,
  type FilmLight,
  addTraced,
  guided,
  isExposed,
  lightOf,
  makeFilm,
  traceCamera,
} from '@sphalerite/core/render';
import { defineStore } from 'pinia';
import { markRaw, ref, shallowRef } from 'vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { JobCancelled } from '../../workers/protocol';
import { calmed, traceOnAll } from '../../shell/takes/tracing';

/** Pixels of a draft, and its samples. */
const PIXELS = 140_000;
const SAMPLES = 8;
/** How long the hand must rest before a draft is begun, in milliseconds. */
const REST = 220;

/** A quick traced picture of what the view shows, made anew whenever that rests after a change. */
export const useDraft = defineStore('draft', () => {
  const session = useSession();
  const notices = useNotices();
  /** Whether drafts are made. */
  const on = ref(true);
  const light = shallowRef<FilmLight | null>(null);
  /** Rises when it has grown. */
  const grown = ref(0);
  let abort: AbortController | null = null;
  let timer = 0;

  /** Takes away the one that stands; what it shows is no longer so. */
  function stop(): void {
    clearTimeout(timer);
    abort?.abort();
    abort = null;
    light.value = null;
  }
  /** Makes one of a shot through a camera, once nothing changes for a moment. */
  function soon(shot: Shot | null, camera: Camera | null): void {
    stop();
    if (!on.value || !shot || !camera) return;
    timer = window.setTimeout(() => void make({ ...shot, camera }), REST);
  }

  async function make(shot: Shot): Promise<void> {
    const project = session.project;
    if (!project) return;
    const mine = new AbortController();
    abort = mine;
    const [w, h] = shot.output.size;
    const k = Math.min(1, Math.sqrt(PIXELS / (w * h)));
    const size = [Math.max(1, Math.round(w * k)), Math.max(1, Math.round(h * k))] as const;
    const film: Film = markRaw(makeFilm(...size));
    const order = { ...shot, output: { ...shot.output, samples: SAMPLES, noise: 0 } };
    try {
      await traceOnAll({ project, shot: order, size }, mine, (_, traced) => {
        if (!traced) return;
        addTraced(film, traced);
        light.value = markRaw(guided(lightOf(film), film));
        grown.value++;
      });
      if (!isExposed(film)) return;
      const camera = traceCamera(shot.camera, ...size, project.metresPerUnit);
      light.value = markRaw(guided(await calmed(film, camera, mine.signal), film));
      grown.value++;
    } catch (e) {
      if (!(e instanceof JobCancelled)) notices.fail(e);
    }
  }
  return { on, light, grown, soon, stop };
});
