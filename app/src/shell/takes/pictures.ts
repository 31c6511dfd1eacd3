import type { Shot } from '@sphalerite/core/model';
import { editShotEdit } from '@sphalerite/core/project';
import { type Area, type FilmLight, guided, lightOf, makeFilm } from '@sphalerite/core/render';
import { nanoid } from 'nanoid';
import { defineStore } from 'pinia';
import { computed, markRaw, shallowRef } from 'vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { type Pace, paceOfPicture } from './cost';
import { type Shown, writtenBy } from './picture-files';
import { type Picture, pictureGrowth } from './picture-growth';
import { pictureList } from './picture-list';
import { hasSamples, keepPicture, unfinishedPictures } from './picture-storage';

/** Pictures being traced and those made before. */
export const usePictures = defineStore('light', () => {
  const session = useSession();
  const notices = useNotices();
  const growth = pictureGrowth(finish);
  const { pictures, list } = pictureList();
  const current = shallowRef<Picture | null>(null);
  /** The picture that the one which is shown is compared with. */
  const beside = shallowRef<Picture | null>(null);

  /** The shot of a picture as it is now: grading, and whether noise is taken out, can be changed after it was traced. */
  const shotOf = (p: Picture): Shot => session.project?.shots.find((s) => s.id === p.shot.id) ?? p.shot;
  const light = (p: Picture): FilmLight => ((shotOf(p).output.denoise || !hasSamples(p)) && p.calm) || lightOf(p.film);
  const shown = (p: Picture): FilmLight => guided(light(p), p.film);
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
    return begin(
      {
        ...{ id: nanoid(), project: markRaw(project), shot, film },
        calm: null,
        url: '',
        seconds: 0,
        calmed: 0,
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
    if (!hasSamples(p)) return false;
    return !p.done || now.samples > samples || (now.noise < noise && now.samples >= samples);
  }
  /** Goes on with a picture, with as many samples as its shot asks for now: it becomes the very picture that it would be without the pause. */
  function goOn(p: Picture): Promise<void> {
    const { samples, noise } = shotOf(p).output;
    pictures.value = pictures.value.filter((o) => o.id !== p.id);
    const shot = { ...p.shot, output: { ...p.shot.output, samples, noise } };
    return begin({ ...p, shot, film: markRaw(p.film), calm: null, done: false }, null);
  }

  function begin(picture: Picture, first: Area | null, looked = true): Promise<void> {
    if (looked) current.value = picture;
    return growth.grow(picture, first);
  }
  let asked = false;
  /** Goes on with what was being traced when the page was left, and shows what was paused. */
  async function resume(): Promise<void> {
    if (asked) return;
    asked = true;
    try {
      for (const { picture, stopped } of await unfinishedPictures())
        if (stopped) await finish(picture);
        else void begin(picture, null, false);
    } catch (e) {
      notices.fail(e);
    }
  }
  /** Puts it among those that are kept. */
  async function finish(picture: Picture): Promise<void> {
    URL.revokeObjectURL(picture.url);
    const png = (await writtenBy('png', {}, asShown(picture)))[0]!.bytes;
    picture.url = URL.createObjectURL(new Blob([png], { type: 'image/png' }));
    // One that was paused may have been gone on with meanwhile.
    const making = growth.making.value;
    if (making && making !== picture && making.id === picture.id) return;
    list([{ ...picture }, ...pictures.value.filter((o) => o.id !== picture.id)]);
    if (picture.done) await keepPicture(picture, png);
    if (current.value?.id === picture.id) current.value = pictures.value[0]!;
  }
  /** Gives the shot of a picture back the settings that it was made from. */
  function takeBack(p: Picture): void {
    const { id, name: _name, ...settings } = p.shot;
    if (session.project?.shots.some((s) => s.id === id)) session.apply(editShotEdit, { shot: id, change: settings });
  }
  /** How long one of a shot took; null where none was made since anything of it but its output changed. */
  function paceOf(shot: Shot): Pace | null {
    const { camera, light: lit, stage } = shot;
    const isSame = (s: Shot): boolean => s.camera === camera && s.light === lit && s.stage === stage;
    const p = own.value.find((o) => o.done && hasSamples(o) && o.shot.id === shot.id && isSame(o.shot));
    return p ? paceOfPicture(p) : null;
  }
  /** Of the project that is open. */
  const own = computed(() => pictures.value.filter((p) => p.project.id === session.project?.id));

  return {
    pictures: own,
    current,
    beside,
    ...growth,
    trace,
    canGoOn,
    goOn,
    resume,
    shown,
    shotOf,
    takeBack,
    paceOf,
    asShown,
  };
});
