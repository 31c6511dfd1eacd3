import type { WrittenFile } from '@sphalerite/core/files';
import type { Shot } from '@sphalerite/core/model';
import { type Film, type FilmLight, guided, isDrawn } from '@sphalerite/core/render';
import { sharedPool } from '../../workers/pool';

/** A picture to be written: what was traced, what of it is shown, and how it is developed. */
export interface Shown {
  readonly name: string;
  readonly film: Film;
  readonly light: FilmLight;
  readonly transparent: boolean;
  /** The shot as it is now. */
  readonly shot: Shot;
}

/** A picture by an exporter, made in a worker. */
export async function writtenBy(exporter: string, options: object, p: Shown): Promise<readonly WrittenFile[]> {
  const { name, transparent, shot } = p;
  // What the eye met is as much again: it goes along only where it is needed.
  const film = exporter === 'exr' || isDrawn(shot.grade) ? guided(p.light, p.film) : p.light;
  const source = { name, film, grade: shot.grade, transparent };
  return (await sharedPool().run('picture', () => ({ exporter, source, options }))).files;
}

/** Small and square, for wherever it is published. */
export const thumbnailOf = (p: Shown): Promise<readonly WrittenFile[]> =>
  writtenBy('png', { thumbnail: true }, { ...p, name: `${p.name} thumbnail` });

/** As the kind of file that its shot becomes. */
export function filesOf(p: Shown): Promise<readonly WrittenFile[]> {
  const { file, cut, passes } = p.shot.output;
  if (file === 'png' || file === 'png16') return writtenBy('png', { deep: file === 'png16', cut }, p);
  return writtenBy(file, file === 'exr' ? { passes } : {}, p);
}
