import { strToU8 } from 'fflate';
import * as z from 'zod';
import { decodePng } from '../../../codec';
import { type Cell, type Sheet, sheetOf } from '../../../takes';
import type { Exporter, SeriesFrame, SeriesSource, WrittenFile } from '../../exporter';
import { FileError } from '../../file-error';
import { fileName } from '../../file-name';
import { encodePng } from '../../png';

interface Options {
  readonly trim: boolean;
  readonly padding: number;
}

/** How many frames follow each other of one clip from one side: they are a row. */
function rowsOf(frames: readonly SeriesFrame[]): number[] {
  const rows: number[] = [];
  frames.forEach((f, i) => {
    const before = frames[i - 1];
    if (before && before.clip === f.clip && before.direction === f.direction) rows[rows.length - 1]!++;
    else rows.push(1);
  });
  return rows;
}
function sheet(frames: readonly SeriesFrame[], { trim, padding }: Options): Sheet {
  const cells: Cell[] = frames.map((f) => decodePng(f.png));
  try {
    return sheetOf(cells, rowsOf(frames), trim, padding);
  } catch (e) {
    if (e instanceof RangeError) throw new FileError('sprites.tooLarge', { frames: frames.length });
    throw e;
  }
}
const png = (name: string, { width, height, rgba }: Sheet): WrittenFile => ({
  name,
  bytes: encodePng(width, height, rgba) as Uint8Array<ArrayBuffer>,
});

/** What a game has to know of a sheet. */
function tableOf({ name, frames, cell }: SeriesSource, made: Sheet, image: string, under: Sheet | null): object {
  const clips = new Map<string, object[]>();
  for (const [i, { clip, direction, index, seconds }] of frames.entries()) {
    const list = clips.get(clip ?? name) ?? [];
    list.push({ direction, index, seconds, ...made.places[i]!, ...(under ? { shadow: under.places[i]! } : {}) });
    clips.set(clip ?? name, list);
  }
  return {
    image,
    ...(under ? { shadows: shadowsOf(image) } : {}),
    ...{ width: made.width, height: made.height },
    cell: { width: cell!.size[0], height: cell!.size[1] },
    anchor: { x: cell!.anchor[0], y: cell!.anchor[1] },
    clips: [...clips].map(([clip, list]) => ({
      name: clip,
      loop: frames.find((f) => (f.clip ?? name) === clip)!.loop,
      frames: list,
    })),
  };
}
const shadowsOf = (image: string): string => image.replace('.png', '-shadow.png');

/** Small pictures on one sheet, a row for each clip and side, with a table of where they stand. */
export const spritesExporter: Exporter<'series', Options> = {
  id: 'sprites',
  name: 'Sprite sheet',
  noun: 'sprite sheet',
  about: 'PNG with a JSON of its frames',
  takes: 'series',
  extensions: ['.png', '.json'],
  type: 'application/zip',
  options: z.strictObject({
    trim: z.boolean().default(false).meta({ title: 'Trim', description: 'each sprite cut to what is in it' }),
    padding: z
      .int()
      .min(0)
      .max(64)
      .default(1)
      .meta({ title: 'Padding', description: 'clear pixels between trimmed sprites' }),
  }),
  plan: ({ frames }) => ({ counts: { frames: frames.length }, notes: [] }),
  write(source, options) {
    if (!source.cell) throw new FileError('sprites.noCell');
    const image = `${fileName(source.name)}.png`,
      made = sheet(source.frames, options),
      under = source.shadows && sheet(source.shadows, options);
    const table = JSON.stringify(tableOf(source, made, image, under), null, 2);
    const files = [
      png(image, made),
      ...(under ? [png(shadowsOf(image), under)] : []),
      { name: image.replace('.png', '.json'), bytes: strToU8(table) as Uint8Array<ArrayBuffer> },
    ];
    return Promise.resolve({ files, notes: [] });
  },
};
