import type { Camera, Project, Shot } from '@sphalerite/core/model';
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
import type { Drawing } from './drawing';
import { type Pace, paceOfDraft } from './cost';
import { calmed, traceOnAll } from './tracing';

/** Samples of a draft. */
const SAMPLES = 8;
/** How long the hand must rest before a draft is begun, in milliseconds. */
const REST = 220;

/**
 * A quick picture of what the view shows, made anew whenever that rests after a change: traced, or drawn and graded where tracing is off.
 *
 * @param pixels – of a draft
 */
function drafts(pixels: number) {
  const session = useSession();
  const notices = useNotices();
  /** Whether they are traced. */
  const on = ref(true);
  const light = shallowRef<FilmLight | null>(null);
  /** Rises when it has grown. */
  const grown = ref(0);
  /** How long the last one that was traced took; null once it is of another shot. */
  const pace = shallowRef<Pace | null>(null);
  let abort: AbortController | null = null;
  let timer = 0;
  let last: string | undefined;
  let drawing: Drawing | null = null;

  /** Takes away the one that stands; what it shows is no longer so. */
  function clear(): void {
    clearTimeout(timer);
    abort?.abort();
    abort = null;
    light.value = null;
  }
  /** Lets go of all. */
  function stop(): void {
    clear();
    drawing?.dispose();
    drawing = null;
  }
  /** Makes one of a shot through a camera, once nothing changes for a moment. */
  function soon(shot: Shot | null, camera: Camera | null): void {
    clear();
    if (shot?.id !== last) pace.value = null;
    last = shot?.id;
    if (shot && camera) timer = window.setTimeout(() => void make({ ...shot, camera }), REST);
  }
  const show = (film: FilmLight): void => {
    light.value = markRaw(film);
    grown.value++;
  };

  async function make(whole: Shot): Promise<void> {
    const { project } = session;
    if (!project) return;
    const mine = new AbortController();
    abort = mine;
    const [w, h] = whole.output.size;
    const k = Math.min(1, Math.sqrt(pixels / (w * h)));
    const size = [Math.max(1, Math.round(w * k)), Math.max(1, Math.round(h * k))] as const;
    const shot = { ...whole, output: { ...whole.output, size, samples: SAMPLES, noise: 0 } };
    try {
      await (on.value ? trace(project, shot, mine) : draw(project, shot, mine));
    } catch (e) {
      if (!(e instanceof JobCancelled)) notices.fail(e);
    }
  }
  async function trace(project: Project, shot: Shot, mine: AbortController): Promise<void> {
    const { size } = shot.output;
    const film: Film = markRaw(makeFilm(...size));
    let began = 0,
      tiles = 0;
    await traceOnAll({ project, shot, size }, mine, (_, traced) => {
      if (!traced) return;
      // Until the first of them comes, scenes are put together, which is no more for larger pictures.
      began ||= performance.now();
      tiles++;
      addTraced(film, traced);
      show(guided(lightOf(film), film));
    });
    if (!isExposed(film)) return;
    const camera = traceCamera(shot.camera, ...size, project.metresPerUnit),
      traced = performance.now();
    show(guided(await calmed(film, camera, mine.signal), film));
    const seconds = (from: number, to: number): number => (to - from) / 1000;
    const tracing = seconds(began, traced) * (tiles / Math.max(1, tiles - 1));
    pace.value = paceOfDraft(film, tracing, seconds(traced, performance.now()));
  }
  async function draw(project: Project, shot: Shot, mine: AbortController): Promise<void> {
    drawing ??= new (await import('./drawing')).Drawing();
    const film = await drawing.film(project, shot, mine.signal);
    if (!mine.signal.aborted) show(film);
  }
  return { on, light, grown, pace, soon, stop };
}

/** What Light shows in place of the view. */
export const useDraft = defineStore('draft', () => drafts(140_000));
/** What the inset shows beside the view. */
export const useInset = defineStore('inset', () => drafts(40_000));
