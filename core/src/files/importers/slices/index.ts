import { strFromU8 } from 'fflate';
import * as z from 'zod';
import { isPng } from '../../../codec';
import { type SliceOptions, type SliceWay, SLICE_WAYS, sliceOptions, slicesSteps } from '../../../intake';
import type { Palette } from '../../../palette';
import { projectOfBodies } from '../../bodies';
import { decodedPicture } from '../../decoded-picture';
import { FileError } from '../../file-error';
import type { Find, GivenFile, Importer } from '../../importer';
import { inPieces } from '../../job';
import { note } from '../../notes';
import { titleOf } from '../picture';

const ABOUT = /\.slices\.json$/i,
  NUMBERED = /^(.*?)[-_ .]?(\d{1,5})\.png$/i;
/** Fewer numbered pictures are just pictures. */
const FEWEST = 3;

/** A stack of pictures, or one with all of them as tiles, as a part: a cube a pixel. */
export const slicesImporter: Importer<SliceOptions> = {
  id: 'slices',
  does: 'Stack its slices',
  extensions: ['.png', '.json'],
  needs: 'project',
  options: sliceOptions,
  accepts: (head, name) => isPng(head) || ABOUT.test(name),
  inspect: stacks,
  async run({ title, files }, options, job, place) {
    const text = files.find((f) => ABOUT.test(f.name)),
      pictures = [];
    for (const f of files.filter((o) => o !== text)) pictures.push(await decodedPicture(f, job));
    if (pictures.length === 0) throw new FileError('slices.none');
    const ours = place?.palette ?? null;
    const body = await inPieces(slicesSteps(pictures, options, text ? wayOf(text) : null, ours), job);
    const name = titleOf(title);
    const palette: Palette = body.ours ? ours! : { id: 'colours', name, swatches: body.swatches };
    return {
      brought: {
        kind: 'parts',
        project: projectOfBodies(name, [{ name, grid: body.grid }], palette),
        facts: {
          pixels: [pictures[0]!.width, pictures[0]!.height],
          slices: [body.slices, ...body.tile],
          colours: [body.colours, body.swatches.length],
        },
      },
      notes: options.colours === 'palette' && !ours ? [note('noPalette')] : [],
    };
  },
};

/** Pictures whose names are numbered and which are of one size are a stack, with the text that tells about them; others are one each. */
function stacks(files: readonly GivenFile[]): Find[] {
  const groups = new Map<string, { readonly n: number; readonly file: GivenFile }[]>(),
    alone: GivenFile[] = [];
  for (const file of files.filter((f) => !ABOUT.test(f.name))) {
    const m = NUMBERED.exec(file.name);
    const key = m && `${m[1]!} ${sizeOf(file)}`;
    if (!m || !key) alone.push(file);
    else groups.set(key, [...(groups.get(key) ?? []), { n: Number(m[2]), file }]);
  }
  const out: Find[] = [];
  for (const list of groups.values()) {
    const stem = NUMBERED.exec(list[0]!.file.name)![1]!;
    const text = files.find((f) => ABOUT.test(f.name) && f.name.replace(ABOUT, '') === stem);
    if (list.length < FEWEST && !text) alone.push(...list.map((l) => l.file));
    else {
      const sorted = list.toSorted((a, b) => a.n - b.n).map((l) => l.file);
      out.push({ title: stem || sorted[0]!.name, files: text ? [...sorted, text] : sorted });
    }
  }
  return [...out, ...alone.map((f) => ({ title: f.name, files: [f] }))];
}
const sizeOf = ({ bytes }: GivenFile): string => (isPng(bytes) ? [...bytes.subarray(16, 24)].join() : '');

const aboutSlices = z.looseObject({ order: z.enum(Object.keys(SLICE_WAYS) as [SliceWay, ...SliceWay[]]) });
/** @throws FileError when the text is none */
function wayOf({ name, bytes }: GivenFile): SliceWay {
  try {
    return aboutSlices.parse(JSON.parse(strFromU8(bytes))).order;
  } catch {
    throw new FileError('slices.text', { name });
  }
}
