import type { Project, Shot } from '@sphalerite/core/model';
import {
  type Area,
  type Film,
  type FilmLight,
  type Traced,
  addTraced,
  tileIndex,
  traceCamera,
} from '@sphalerite/core/render';
import { markRaw, ref, shallowRef } from 'vue';
import { useNotices } from '../../stores/notices';
import { JobCancelled } from '../../workers/protocol';
import { say } from '../../words';
import { GrowingPicture, hasSamples } from './picture-storage';
import { calmed, traceOnAll } from './tracing';

/** A finished or growing picture with what it was made from. */
export interface Picture {
  readonly id: string;
  /** The project as it was. */
  readonly project: Project;
  readonly shot: Shot;
  readonly film: Film;
  /** The same without most of its noise, once that is worked out. */
  calm: FilmLight | null;
  /** Address of a PNG of it, once it stands. */
  url: string;
  seconds: number;
  /** How long taking the noise out took. */
  calmed: number;
  /** How much of it stands. */
  share: number;
  done: boolean;
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

/** How one picture after another comes to be; a newer one stops the one before. @param finished – told of each that is done or was stopped, its noise taken out */
export function pictureGrowth(finished: (p: Picture) => Promise<void>) {
  const notices = useNotices();
  /** The one that is being made. */
  const making = shallowRef<Picture | null>(null);
  const progress = ref(0);
  const tracing = ref(false);
  /** Seconds that it still takes, as far as can be told. */
  const left = ref(0);
  /** Rises whenever the film has grown, for whoever draws it. */
  const grown = ref(0);
  /** Whether the noise is being taken out. */
  const calming = ref(false);
  const stop = shallowRef<AbortController | null>(null);

  /** Works out the picture without its noise; the one with it stays. */
  async function denoise(p: Picture): Promise<void> {
    const [width, height] = p.shot.output.size,
      abort = new AbortController();
    stop.value = abort;
    calming.value = true;
    progress.value = 0;
    const began = performance.now();
    try {
      const camera = traceCamera(p.shot.camera, width, height, p.project.metresPerUnit);
      p.calm = markRaw(await calmed(p.film, camera, abort.signal, (share) => void (progress.value = share)));
      p.calmed = (performance.now() - began) / 1000;
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

  async function grow(picture: Picture, first: Area | null): Promise<void> {
    stop.value?.abort();
    const abort = new AbortController(),
      { project, shot, film } = picture,
      before = picture.seconds;
    stop.value = abort;
    making.value = picture;
    tracing.value = true;
    progress.value = left.value = 0;
    const started = performance.now();
    const kept = new GrowingPicture(picture);
    const had = hasSamples(picture) ? film : null,
      order = { project, shot, size: shot.output.size, first, film: had, patient: true };
    try {
      await traceOnAll(order, abort, (share, traced) => {
        if (traced && !grows(film, traced, notices)) return abort.abort();
        if (traced) kept.grew(tileIndex(film, traced));
        progress.value = picture.share = share;
        const spent = (performance.now() - started) / 1000;
        left.value = share > 0.02 ? spent / share - spent : 0;
        grown.value++;
      });
      picture.done = true;
    } catch (e) {
      abort.abort();
      if (!(e instanceof JobCancelled)) notices.fail(e);
    } finally {
      const ended = picture.done ? kept.end() : kept.pause();
      if (stop.value === abort) {
        picture.seconds = before + (performance.now() - started) / 1000;
        tracing.value = false;
        stop.value = null;
        if (hasSamples(picture)) {
          await denoise(picture);
          await finished(picture);
        }
        await ended;
        if (making.value === picture) making.value = null;
        grown.value++;
      }
    }
  }
  const cancel = (): void => stop.value?.abort();
  return { making, progress, tracing, left, grown, calming, grow, cancel };
}
