import {
  type FileJob,
  type PictureSource,
  type Written,
  fileName,
  inPieces,
  FileError,
  type Find,
  type ImportJob,
  deliver,
  encodePng,
  exporterOf,
  faceSharesSteps,
  hashed,
  importerOf,
  planExport,
  planOf,
  runExport,
  zipFiles,
} from '@sphalerite/core/files';
import { developSteps } from '@sphalerite/core/render';
import { MOST_PIXELS, type Pixels } from '@sphalerite/core/codec';
import { deliveriesOf, deliveryOf } from '@sphalerite/core/model';
import { projectThumbnailSteps } from '@sphalerite/core/render';
import { SentBricks } from '../packed';
import { NOT_HELD } from '../held';
import { drive } from './drive';
import type { Handlers } from './kinds';

/** Nothing, where something cannot be made of a project; that it was stopped goes on. */
function refused(e: unknown): null {
  if (e instanceof FileError) return null;
  throw e;
}

/** Files that go out and come in. */
export const fileJobs = {
  async export({ project, order }, ctx) {
    return runExport(ctx.bricks.openProject(project), order, ctx);
  },

  async deliver({ project, order }, ctx) {
    const p = ctx.bricks.openProject(project),
      { subject, profile } = order;
    const delivered = await deliver(p, order, ctx);
    // What a reader shows is the file itself; where there is none of that kind, one is made for looking.
    const own = delivered.formats.find((f) => f.exporter === 'glb')?.files[0]?.bytes;
    const looked = { exporter: 'glb', subject, profile, options: {} } as const;
    const shares = await drive(faceSharesSteps(p, subject, profile), ctx).catch(refused);
    const seen = own ?? (await runExport(p, looked, ctx).catch(refused))?.files[0]?.bytes ?? null;
    return { delivered, hashes: delivered.files.map((f) => hashed(f).hash), shares, seen };
  },

  zip: ({ name, files }) => Promise.resolve(zipFiles(name, files)),

  async plan({ project, order, delivery }, ctx) {
    const p = ctx.bricks.openProject(project);
    const profile = deliveryOf(p, delivery) ?? deliveriesOf(p)[0]!;
    // Counted again and again while one works: colliders and clips are made when files are.
    const counted = {
      ...profile,
      collider: { ...profile.collider, shape: 'none' as const },
      looks: { ...profile.looks, clips: false },
    };
    return planExport(p, { ...order, profile: counted }, ctx);
  },

  takePlan: ({ project, shot }, ctx) => Promise.resolve(planOf(ctx.bricks.openProject(project), shot)),

  async series({ exporter, source, options }, ctx) {
    const known = exporterOf(exporter);
    if (known?.takes !== 'series') throw new Error(`There is no kind of series called "${exporter}".`);
    return known.write(source, known.options.parse(options), ctx);
  },

  async picture({ exporter, source, options }, ctx) {
    if (exporter === 'webp') return webp(source, ctx);
    const known = exporterOf(exporter);
    if (known?.takes !== 'picture') throw new Error(`There is no kind of picture called "${exporter}".`);
    return known.write(source, known.options.parse(options), ctx);
  },

  async bringIn({ importer, find, options, place, held, again }, ctx) {
    const known = importerOf(importer);
    if (!known) throw new Error(`There is no way in called "${importer}".`);
    const job: ImportJob = { report: ctx.report, breathe: ctx.breathe, pictureSize, pixels };
    if (again === true && lastHeld?.name !== held) throw new Error(NOT_HELD);
    if (held !== undefined && lastHeld?.name !== held) lastHeld = { name: held, find };
    const { brought, notes } = await known.run(
      held === undefined ? find : lastHeld!.find,
      known.options.parse(options),
      job,
      place,
    );
    if (brought.kind !== 'project' && brought.kind !== 'parts') return { brought, notes };
    const sent = new SentBricks();
    const project = sent.packProject(brought.project, 'all'),
      bricks = sent.takeParcel();
    return {
      brought:
        brought.kind === 'parts'
          ? { kind: 'parts', project, bricks, facts: brought.facts }
          : { kind: 'project', project, bricks },
      notes,
    };
  },

  async grownPicture({ importer, options }, ctx) {
    const known = importerOf(importer)!;
    const job: ImportJob = { report: ctx.report, breathe: ctx.breathe, pictureSize };
    const { brought } = await known.run({ title: '', files: [] }, known.options.parse(options), job, null);
    if (brought.kind !== 'parts') throw new Error('Nothing was made up.');
    const steps = projectThumbnailSteps(brought.project, SMALL);
    return encodePng(SMALL, SMALL, await drive(steps, ctx)) as Uint8Array<ArrayBuffer>;
  },
} satisfies Partial<Handlers>;

/** Edge of a picture to choose from, in pixels. */
const SMALL = 96;

/** Files that are made something of again and again, with every change of a wish. */
let lastHeld: { readonly name: string; readonly find: Find } | null = null;

/** A kind of picture that only browsers write. */
async function webp({ name, film, grade, transparent }: PictureSource, ctx: FileJob): Promise<Written> {
  const { width, height } = film;
  const pixels = await inPieces(developSteps(film, { grade, transparent }), ctx);
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(pixels.buffer), width, height), 0, 0);
  const blob = await canvas.convertToBlob({ type: 'image/webp', quality: 0.92 });
  return { files: [{ name: `${fileName(name)}.webp`, bytes: new Uint8Array(await blob.arrayBuffer()) }], notes: [] };
}

/** Decoded by the browser, its first frame. */
async function pixels(bytes: Uint8Array<ArrayBuffer>, type: string): Promise<Pixels> {
  const picture = await createImageBitmap(new Blob([bytes], { type }));
  const { width, height } = picture;
  if (width * height > MOST_PIXELS) throw new Error('Too large.');
  const canvas = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  canvas.drawImage(picture, 0, 0);
  picture.close();
  const { data } = canvas.getImageData(0, 0, width, height);
  return { width, height, rgba: new Uint8Array(data.buffer), indexed: null };
}

/** Decoded by the browser, which knows all the kinds of pictures there are. */
async function pictureSize(bytes: Uint8Array<ArrayBuffer>, type: string): Promise<{ width: number; height: number }> {
  const picture = await createImageBitmap(new Blob([bytes], { type }));
  const { width, height } = picture;
  picture.close();
  return { width, height };
}
