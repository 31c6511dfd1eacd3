import type { Project, Shot } from '@sphalerite/core/model';
import { editShotEdit } from '@sphalerite/core/project';
import {
  type Area,
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
import { computed, markRaw, ref, shallowRef } from 'vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { JobCancelled } from '../../workers/protocol';
import { say } from '../../words';
import { type Shown, writtenBy } from './picture-files';
import { calmed, traceOnAll } from './tracing';

/** A finished or growing picture with what it was made from. */
export interface Picture {
  readonly id: number;
  /** The project as it was. */
  readonly project: Project;
  readonly shot: Shot;
  readonly film: Film;
  /** The same without most of its noise, once that is worked out. */
  calm: FilmLight | null;
  /** Address of a PNG of it, once it stands. */
  url: string;
  seconds: number;
  /** How much of it stands. */
  share: number;
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
export const usePictures = defineStore('light', () => {
  const session = useSession();
  const notices = useNotices();
  const pictures = shallowRef<Picture[]>([]);
  const current = shallowRef<Picture | null>(null);
  /** The one that is being made. */
  const making = shallowRef<Picture | null>(null);
  /** The picture that the one which is shown is compared with. */
  const beside = shallowRef<Picture | null>(null);
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
      const camera = traceCamera(p.shot.camera, width, height, p.project.metresPerUnit);
      p.calm = markRaw(await calmed(p.film, camera, abort.signal, (share) => void (progress.value = share)));
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
    name: `${p.project.name} ${p.shot.name}`,
    film: p.film,
    light: light(p),
    transparent: p.shot.output.transparent && shotOf(p).output.transparent,
    shot: shotOf(p),
  });

  /** Traces a shot on all workers; resolves when it is done or was stopped. @param first – what is traced before the rest */
  function trace(shot: Shot, first: Area | null = null): Promise<void> {
    const { project } = session;
    if (!project) return Promise.resolve();
    const film = markRaw(makeFilm(...shot.output.size));
    return grow(
      {
        ...{ id: next++, project: markRaw(project), shot, film },
        calm: null,
        url: '',
        seconds: 0,
        share: 0,
        done: false,
      },
      first,
    );
  }

  /** Whether more can come of a picture: it was stopped, or its shot asks for more by now. */
  function canGoOn(p: Picture): boolean {
    const now = shotOf(p).output,
      { samples, noise } = p.shot.output;
    return !p.done || now.samples > samples || (now.noise < noise && now.samples >= samples);
  }
  /** Goes on with a picture, with as many samples as its shot asks for now: it becomes the very picture that it would be without the pause. */
  function goOn(p: Picture): Promise<void> {
    const { samples, noise } = shotOf(p).output;
    pictures.value = pictures.value.filter((o) => o.id !== p.id);
    const shot = { ...p.shot, output: { ...p.shot.output, samples, noise } };
    return grow({ ...p, shot, film: markRaw(p.film), calm: null, done: false }, null);
  }

  async function grow(picture: Picture, first: Area | null): Promise<void> {
    stop.value?.abort();
    const abort = new AbortController(),
      { project, shot, film } = picture,
      before = picture.seconds;
    stop.value = abort;
    current.value = making.value = picture;
    tracing.value = true;
    progress.value = left.value = 0;
    const started = performance.now();
    const order = { project, shot, size: shot.output.size, first, film: isExposed(film) ? film : null };
    try {
      await traceOnAll(order, abort, (share, traced) => {
        if (traced && !grows(film, traced, notices)) return abort.abort();
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
      if (stop.value === abort) {
        picture.seconds = before + (performance.now() - started) / 1000;
        tracing.value = false;
        stop.value = null;
        if (isExposed(film)) await finish(picture);
        if (making.value === picture) making.value = null;
        grown.value++;
      }
    }
  }
  /** Takes the noise out, and puts it among those that are kept. */
  async function finish(picture: Picture): Promise<void> {
    await denoise(picture);
    URL.revokeObjectURL(picture.url);
    picture.url = URL.createObjectURL(
      new Blob([(await writtenBy('png', {}, asShown(picture)))[0]!.bytes], { type: 'image/png' }),
    );
    pictures.value = withinMemory([{ ...picture }, ...pictures.value]);
    if (current.value?.id === picture.id) current.value = pictures.value[0]!;
  }
  /** Gives the shot of a picture back the settings that it was made from. */
  function takeBack(p: Picture): void {
    const { id, name: _name, ...settings } = p.shot;
    if (session.project?.shots.some((s) => s.id === id)) session.apply(editShotEdit, { shot: id, change: settings });
  }
  const cancel = (): void => stop.value?.abort();
  /** Of the project that is open. */
  const own = computed(() => pictures.value.filter((p) => p.project.id === session.project?.id));

  return {
    pictures: own,
    current,
    making,
    beside,
    progress,
    tracing,
    left,
    grown,
    calming,
    trace,
    canGoOn,
    goOn,
    cancel,
    shown,
    shotOf,
    takeBack,
    asShown,
  };
});
