import type { Shot } from '@sphalerite/core/model';
import { editShotEdit } from '@sphalerite/core/project';
import {
  type Film,
  type FilmLight,
  type Traced,
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
import { sharedPool } from '../../workers/pool';
import { JobCancelled } from '../../workers/protocol';
import { say } from '../../words';
import { type Shown, writtenBy } from './picture-files';
import { traceOnAll } from './tracing';

/** A finished or growing picture with what it was made from. */
export interface Picture {
  readonly id: number;
  readonly shot: Shot;
  readonly film: Film;
  /** The same without most of its noise, once that is worked out. */
  calm: FilmLight | null;
  /** Address of a PNG of it, once it stands. */
  url: string;
  seconds: number;
  done: boolean;
}

/** Pixels that kept pictures may have together: light, what was met first and the same without noise are 80 bytes a pixel. */
const MOST_PIXELS = 5_000_000;

/** The newest pictures, as many as memory is meant for; always the first. */
function withinMemory(list: readonly Picture[]): Picture[] {
  let pixels = 0;
  return list.filter((p, i) => (pixels += p.film.width * p.film.height) <= MOST_PIXELS || i === 0);
}

/** Adds samples to a film; false when there is no memory for them, which is told. */
function grows(film: Film, traced: Traced, notices: ReturnType<typeof useNotices>): boolean {
  try {
    addTraced(film, traced);
    return true;
  } catch {
    const { width, height } = film;
    notices.say(say('picture.noMemory', { width, height }), { kind: 'error' });
    return false;
  }
}

/** Pictures being traced and those made before, for this session. */
export const useLight = defineStore('light', () => {
  const session = useSession();
  const notices = useNotices();
  const pictures = ref<Picture[]>([]);
  const current = ref<Picture | null>(null);
  /** The picture that the one which is shown is compared with. */
  const beside = ref<Picture | null>(null);
  const progress = ref(0);
  const tracing = ref(false);
  const left = ref(0);
  /** Rises whenever the film has grown, for whoever draws it. */
  const grown = ref(0);
  /** Whether the noise is being taken out. */
  const calming = ref(false);
  const stop = shallowRef<AbortController | null>(null);
  let next = 1;

  /** The shot of a picture as it is now: grading, and whether noise is taken out, can be changed after it was traced. */
  const shotOf = (p: Picture): Shot => session.project?.shots.find((s) => s.id === p.shot.id) ?? p.shot;
  const light = (p: Picture): FilmLight => (shotOf(p).output.denoise && p.calm) || lightOf(p.film);
  const shown = (p: Picture): FilmLight => guided(light(p), p.film);
  /** Works out the picture without its noise; the one with it stays. */
  async function denoise(p: Picture): Promise<void> {
    const [width, height] = p.shot.output.size,
      abort = new AbortController();
    stop.value = abort;
    calming.value = true;
    progress.value = 0;
    try {
      const camera = traceCamera(p.shot.camera, width, height, session.project?.metresPerUnit);
      p.calm = markRaw(
        await sharedPool().run('denoise', () => ({ film: p.film, camera }), {
          signal: abort.signal,
          onProgress: (share) => void (progress.value = share),
        }),
      );
    } catch (e) {
      if (!(e instanceof JobCancelled)) notices.fail(e);
    } finally {
      // A newer picture may have begun meanwhile.
      if (stop.value === abort) stop.value = null;
      if (p.calm) progress.value = 1;
      calming.value = false;
      grown.value++;
    }
  }

  /** The picture as it stands, with the grading its shot has now, for whoever writes it. */
  const asShown = (p: Picture): Shown => ({
    name: `${session.project?.name ?? ''} ${p.shot.name}`,
    film: p.film,
    light: light(p),
    transparent: p.shot.output.transparent && shotOf(p).output.transparent,
    shot: shotOf(p),
  });

  /** Traces a shot on all workers; resolves when it is done or was stopped. */
  async function trace(shot: Shot): Promise<void> {
    stop.value?.abort();
    const project = session.project;
    if (!project) return;
    const abort = new AbortController();
    stop.value = abort;
    const film = markRaw(makeFilm(...shot.output.size));
    const picture: Picture = { id: next++, shot, film, calm: null, url: '', seconds: 0, done: false };
    current.value = picture;
    tracing.value = true;
    progress.value = 0;
    const started = performance.now();
    try {
      await traceOnAll(project, shot, shot.output.size, abort, (share, traced) => {
        if (traced && !grows(film, traced, notices)) return abort.abort();
        progress.value = share;
        const spent = (performance.now() - started) / 1000;
        left.value = share > 0.02 ? spent / share - spent : 0;
        grown.value++;
      });
      picture.done = true;
    } catch (e) {
      abort.abort();
      if (!(e instanceof JobCancelled)) notices.fail(e);
    } finally {
      if (stop.value === abort) {
        picture.seconds = (performance.now() - started) / 1000;
        tracing.value = false;
        stop.value = null;
        if (isExposed(film)) {
          await denoise(picture);
          picture.url = URL.createObjectURL(
            new Blob([(await writtenBy('png', {}, asShown(picture)))[0]!.bytes], { type: 'image/png' }),
          );
          pictures.value = withinMemory([{ ...picture }, ...pictures.value]);
          if (current.value?.id === picture.id) current.value = pictures.value[0]!;
        }
        grown.value++;
      }
    }
  }
  /** Gives the shot of a picture back the settings that it was made from. */
  function takeBack(p: Picture): void {
    const { id, name: _name, ...settings } = p.shot;
    if (session.project?.shots.some((s) => s.id === id)) session.apply(editShotEdit, { shot: id, change: settings });
  }
  const cancel = (): void => stop.value?.abort();

  return {
    pictures,
    current,
    beside,
    progress,
    tracing,
    left,
    grown,
    calming,
    trace,
    cancel,
    shown,
    shotOf,
    takeBack,
    asShown,
  };
});
