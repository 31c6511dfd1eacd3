import type { Project, Shot } from '../model';
import { type Frame, MOST_CELL, type SpriteCell, framesOf, pathLoops, spriteFrames } from '../takes';
import { FileError } from './file-error';
import type { SeriesFrame, SeriesSource } from './exporter';

/** All pictures that a shot becomes, and what holds for all of them. */
export interface TakePlan {
  readonly frames: readonly Frame[];
  readonly cell: SpriteCell | null;
  /** Whether the shadow of each is a picture of its own; these come after all others. */
  readonly shadows: boolean;
  /** How many pictures there are in all. */
  readonly count: number;
}

/** @throws FileError when sprites would be too large */
export function planOf(project: Project, shot: Shot): TakePlan {
  const frames = framesOf(project, shot);
  if (shot.output.makes !== 'sprites' || frames.length === 0)
    return { frames, cell: null, shadows: false, count: frames.length };
  const sprites = fitting(project, frames);
  const { shadow } = shot.output.sprites;
  return { ...sprites, shadows: shadow, count: frames.length * (shadow ? 2 : 1) };
}

function fitting(project: Project, frames: readonly Frame[]): ReturnType<typeof spriteFrames> {
  try {
    return spriteFrames(project, frames);
  } catch (e) {
    if (e instanceof RangeError) throw new FileError('sprites.cellTooLarge', { most: MOST_CELL });
    throw e;
  }
}

/** The shot of one of the pictures of a plan, and whether its shadow alone is meant. */
export function pictureOf({ frames, cell, shadows }: TakePlan, index: number): { shot: Shot; groundAlone: boolean } {
  const { shot } = frames[index % frames.length]!;
  if (!cell) return { shot, groundAlone: false };
  const groundAlone = index >= frames.length;
  // A shadow that has a sheet of its own stands on no other.
  const kind = groundAlone ? 'shadow' : shadows ? 'none' : shot.stage.ground.kind === 'shadow' ? 'shadow' : 'none';
  return { shot: { ...shot, stage: { ...shot.stage, ground: { ...shot.stage.ground, kind } } }, groundAlone };
}

/** The pictures of a plan as an exporter takes them. @param pngs – by their index */
export function seriesOf(
  name: string,
  shot: Shot,
  plan: TakePlan,
  pngs: readonly Uint8Array<ArrayBuffer>[],
): SeriesSource {
  const { frames, cell, shadows } = plan;
  const whole = frames.map(({ clip, direction, index, seconds }, i): SeriesFrame => {
    const { makes, path } = shot.output,
      loop = (makes === 'path' && pathLoops(path)) || (clip ? clip.loop : makes === 'clip');
    return { png: pngs[i]!, seconds, clip: clip?.name ?? null, loop, direction, index };
  });
  return {
    name,
    loop: whole.every((f) => f.loop),
    frames: whole,
    cell,
    shadows: shadows ? whole.map((f, i) => ({ ...f, png: pngs[frames.length + i]! })) : null,
  };
}
