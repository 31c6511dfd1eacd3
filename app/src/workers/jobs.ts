import {
  type Delivered,
  type DeliveryOrder,
  type ExportOrder,
  type ExportPlan,
  type FaceShares,
  FileError,
  type Find,
  type ImportJob,
  type Imported,
  type PictureSource,
  type Place,
  type Written,
  type WrittenFile,
  deliver,
  encodePng,
  exporterOf,
  faceSharesSteps,
  hashed,
  importerOf,
  planExport,
  runExport,
  zipFiles,
} from '@sphalerite/core/files';
import { MOST_PIXELS, type Pixels } from '@sphalerite/core/codec';
import { type Axis, type Box, type Steps, type Vec3, withAxis } from '@sphalerite/core/math';
import { type ChunkMesh, type SceneCost, chunksOf, coarserForms, meshChunk, sceneCosts } from '@sphalerite/core/mesh';
import { type Shot, deliveriesOf, deliveryOf, must } from '@sphalerite/core/model';
import * as projects from '@sphalerite/core/project';
import type { DeliveryFigures, DeliveryFinding, StandingFindings } from '@sphalerite/core/project';
import {
  THUMBNAIL,
  partThumbnailSteps,
  projectThumbnailSteps,
  traceSceneOf,
  type Traced,
  tileAreas,
  traceArea,
  type Film,
  type FilmLight,
  type TraceCamera,
  denoiseSteps,
} from '@sphalerite/core/render';
import { type RegionQuery, innerCells, regionSteps, untidySteps } from '@sphalerite/core/sculpt';
import {
  type Clash,
  type ContactReport,
  type SceneFinding,
  clashes,
  clipFrames,
  contactReport,
  gather,
  readSceneSteps,
} from '@sphalerite/core/scene';
import { type JointStudy, bestPivots, studyJoint } from '@sphalerite/core/rig';
import { type BrickEntry, CellSet } from '@sphalerite/core/voxel';
import {
  type BrickMirror,
  type BrickParcel,
  type PackedGrid,
  type PackedProject,
  type ReturnedGrid,
  SentBricks,
} from './packed';
import { NOT_HELD } from './held';
import { giveBack } from './background-edit';
import type { ProjectPatch } from './patch';

/** Every job: what goes in, what comes out, and what it tells on the way. */
export interface Jobs {
  mesh: { input: { grid: PackedGrid; chunks: readonly Vec3[] }; output: (ChunkMesh | null)[]; partial: never };
  /** Ever coarser forms of a grid, and the quads that it and each of them are drawn with. */
  coarser: {
    input: { grid: PackedGrid; levels: number };
    output: { forms: { bounds: Box; bricks: BrickEntry[] }[]; quads: number[] };
    partial: never;
  };
  /** One of `lanes` workers on a picture: tiles whose number modulo `lanes` is `lane`, from the middle, pass by pass. */
  trace: {
    input: { project: PackedProject; shot: Shot; size: readonly [number, number]; lane: number; lanes: number };
    output: null;
    partial: Traced;
  };
  /** A film without most of its noise. */
  denoise: { input: { film: Film; camera: TraceCamera }; output: FilmLight; partial: never };
  /** Files of a project, by an exporter. */
  export: {
    input: { project: PackedProject; order: ExportOrder };
    output: Written & Pick<ExportPlan, 'counts'>;
    partial: never;
  };
  /** All files of a delivery; where its triangles are; and the file that the view reads back, when no format is that. */
  deliver: {
    input: { project: PackedProject; order: DeliveryOrder };
    output: {
      delivered: Delivered;
      /** SHA-256 of each of its files. */
      hashes: readonly string[];
      shares: FaceShares | null;
      seen: Uint8Array<ArrayBuffer> | null;
    };
    partial: never;
  };
  /** Several files as one ZIP. */
  zip: { input: { name: string; files: readonly WrittenFile[] }; output: WrittenFile; partial: never };
  /** What a delivery is found to be. @param standing – what of it is known already */
  deliveryChecks: {
    input: {
      project: PackedProject;
      order: DeliveryOrder;
      figures: DeliveryFigures;
      standing: StandingFindings | null;
    };
    output: { findings: DeliveryFinding[]; standing: StandingFindings };
    partial: never;
  };
  /** What an exporter would write for a delivery, without its bytes. */
  plan: {
    input: { project: PackedProject; order: ExportOrder; delivery: string };
    output: ExportPlan;
    partial: never;
  };
  /** A traced picture as a file, by an exporter. */
  picture: { input: { exporter: string; source: PictureSource; options: unknown }; output: Written; partial: never };
  /** What an importer makes of files; a project is packed for the way back, with every brick. */
  bringIn: {
    input: {
      importer: string;
      find: Find;
      options: unknown;
      place: Place | null;
      /** Names files that come again and again, so that what was decoded of them is kept. */
      held?: string;
      /** Whether they were sent before under that name and are left out now. */
      again?: boolean;
    };
    output: { brought: PackedBrought; notes: Imported['notes'] };
    partial: never;
  };
  /** Any edit of a project, by name; gives what it changed. */
  edit: {
    input: { project: PackedProject; edit: string; args: unknown; seed: string; now: number };
    output: ProjectPatch<ReturnedGrid>;
    partial: never;
  };
  /** What Fill and Select mean by a click. */
  region: {
    input: { grid: PackedGrid; query: RegionQuery };
    output: { box: Box; words: Int32Array<ArrayBuffer> };
    partial: never;
  };
  /** Loose cubes, holes and hidden cubes of a grid. */
  untidy: {
    input: { grid: PackedGrid };
    output: { loose: PackedSet; loosePieces: number; holes: PackedSet; hidden: PackedSet };
    partial: never;
  };
  /** The cubes that hollowing out would take. */
  inner: {
    input: { grid: PackedGrid; wall: number; joined: boolean };
    output: PackedSet;
    partial: never;
  };
  /** How a joint behaves at the pivots that are given, the first of them its own, and at the best that can be found. */
  study: {
    input: { limb: PackedSet; body: PackedSet; given: readonly Vec3[]; axis: Axis; angles: readonly number[] };
    output: JointStudy[];
    partial: never;
  };
  /** What the parts do to the ground and to each other, clip by clip. */
  motion: {
    input: { project: PackedProject; clips: readonly string[]; ground: readonly [number, number] | null };
    output: { contact: ContactReport; clashes: readonly Clash[] }[];
    partial: never;
  };
  /** What a scene costs, and what an artist would want to know of it. */
  scene: {
    input: { project: PackedProject; scene: string };
    output: { costs: SceneCost[]; findings: SceneFinding[] };
    partial: never;
  };
  /** What is made up by these wishes, as a small PNG. */
  grownPicture: {
    input: { importer: string; options: unknown };
    output: Uint8Array<ArrayBuffer>;
    partial: never;
  };
  /** A part, or the whole project, as a PNG. */
  thumbnail: {
    input: { project: PackedProject; part: string | null };
    output: Uint8Array<ArrayBuffer>;
    partial: never;
  };
}
export type JobKind = keyof Jobs;

/** What was brought in, on its way. */
export type PackedBrought =
  | { readonly kind: 'project'; readonly project: PackedProject; readonly bricks: BrickParcel }
  | {
      readonly kind: 'parts';
      readonly project: PackedProject;
      readonly bricks: BrickParcel;
      readonly facts: Extract<Imported['brought'], { kind: 'parts' }>['facts'];
    }
  | Exclude<Imported['brought'], { kind: 'project' | 'parts' }>;

/** A set of cells on its way. */
export interface PackedSet {
  readonly box: Box;
  readonly words: Int32Array<ArrayBuffer>;
}

export interface JobContext<P> {
  readonly bricks: BrickMirror;
  /** 0–1, and a piece of the result where there is one. */
  report(progress: number, partial?: P): void;
  /** Lets messages in; throws when the job was cancelled. */
  breathe(): Promise<void>;
}

type Handlers = {
  [K in JobKind]: (input: Jobs[K]['input'], ctx: JobContext<Jobs[K]['partial']>) => Promise<Jobs[K]['output']>;
};

/** Every edit by name, as the folder of edits exports them: a registry filled on the side would be left out of the bundle. */
const EDITS = new Map(
  Object.values(projects)
    .filter((e): e is projects.Edit<never> => typeof e === 'object' && 'run' in e && 'touches' in e)
    .map((e) => [e.name, e as projects.Edit<unknown>]),
);

/** Nothing, where something cannot be made of a project; that it was stopped goes on. */
function refused(e: unknown): null {
  if (e instanceof FileError) return null;
  throw e;
}

/** Runs work in pieces, telling how far it is and letting messages in between. */
async function drive<T>(steps: Steps<T>, ctx: JobContext<never>): Promise<T> {
  for (;;) {
    const s = steps.next();
    if (s.done) return s.value;
    ctx.report(s.value);
    await ctx.breathe();
  }
}

/** What runs in a worker, and in a test without one. */
export const handlers: Handlers = {
  async mesh({ grid, chunks }, ctx) {
    const g = ctx.bricks.openGrid(grid);
    const out: (ChunkMesh | null)[] = [];
    for (const [i, [x, y, z]] of chunks.entries()) {
      out.push(meshChunk(g, x, y, z));
      if (i % 64 === 63) {
        ctx.report(i / chunks.length);
        await ctx.breathe();
      }
    }
    return out;
  },

  async coarser({ grid, levels }, ctx) {
    const all = [ctx.bricks.openGrid(grid)];
    const quads: number[] = [];
    all.push(...coarserForms(all[0]!, levels));
    for (const g of all) {
      let n = 0;
      for (const [x, y, z] of chunksOf(g)) n += meshChunk(g, x, y, z)?.counts.reduce((a, c) => a + c, 0) ?? 0;
      quads.push(n);
      await ctx.breathe();
    }
    return { quads, forms: all.slice(1).map((g) => ({ bounds: g.bounds, bricks: [...g.bricks()] })) };
  },

  async edit({ project, edit, args, seed, now }, ctx) {
    const known = EDITS.get(edit);
    if (!known) throw new Error(`There is no edit "${edit}".`);
    const before = ctx.bricks.openProject(project);
    const after = projects.apply(before, known, args, projects.editContext(seed, now));
    return giveBack(before, after, ctx.bricks);
  },

  async region({ grid, query }, ctx) {
    const g = ctx.bricks.openGrid(grid);
    const steps = regionSteps(g, query);
    for (let n = 1; ; n++) {
      const s = steps.next();
      if (s.done) return { box: s.value.box, words: s.value.words };
      // How far it is cannot be known; the bar slows down as it nears its end.
      ctx.report(1 - 1 / (1 + n / 6));
      await ctx.breathe();
    }
  },

  async untidy({ grid }, ctx) {
    const u = await drive(untidySteps(ctx.bricks.openGrid(grid)), ctx);
    const pack = ({ box, words }: CellSet): PackedSet => ({ box, words });
    return { loose: pack(u.loose), loosePieces: u.loosePieces, holes: pack(u.holes), hidden: pack(u.hidden) };
  },

  async inner({ grid, wall, joined }, ctx) {
    const { box, words } = innerCells(ctx.bricks.openGrid(grid), wall, joined);
    return { box, words };
  },

  async study({ limb, body, given, axis, angles }, ctx) {
    const l = new CellSet(limb.box, limb.words),
      b = new CellSet(body.box, body.words),
      out: JointStudy[] = [];
    // Along the axis a pivot stays where the joint is: nothing swings otherwise for it.
    const found = (await drive(bestPivots(l, b, axis, angles), ctx)).map((p) => withAxis(p, axis, given[0]![axis]));
    const same = (a: Vec3, c: Vec3): boolean => a.every((v, i) => v === c[i]);
    for (const pivot of [...given, ...found.filter((p) => !given.some((g) => same(g, p)))]) {
      out.push(...studyJoint(l, b, [pivot], axis, angles));
      await ctx.breathe();
    }
    return out;
  },

  async motion({ project, clips, ground }, ctx) {
    const p = ctx.bricks.openProject(project),
      out: { contact: ContactReport; clashes: readonly Clash[] }[] = [];
    for (const [i, id] of clips.entries()) {
      const clip = must(p.clips, id, 'clip'),
        frames = clipFrames(p, clip);
      out.push({ contact: contactReport(p, clip, ground, frames), clashes: clashes(p, clip, frames) });
      ctx.report((i + 1) / clips.length);
      await ctx.breathe();
    }
    return out;
  },

  async scene({ project, scene }, ctx) {
    const p = ctx.bricks.openProject(project);
    const findings = await drive(readSceneSteps(p, scene), ctx);
    return { costs: sceneCosts(must(p.scenes, scene, 'scene'), gather(p, { of: 'scene', scene })), findings };
  },

  async trace({ project, shot, size, lane, lanes }, ctx) {
    const scene = traceSceneOf(ctx.bricks.openProject(project), shot, size);
    const mine = tileAreas(scene.width, scene.height).filter((_, i) => i % lanes === lane);
    let done = 0;
    for (let sample = 0; sample < shot.output.samples;) {
      // The first passes are thin, so that a picture stands early; later ones carry more at a time.
      const samples = Math.min(shot.output.samples - sample, sample < 4 ? 1 : 4);
      for (const area of mine) {
        const traced = traceArea(scene, area, sample, samples);
        done += samples;
        ctx.report(done / (mine.length * shot.output.samples), traced);
        await ctx.breathe();
      }
      sample += samples;
    }
    return null;
  },

  denoise: ({ film, camera }, ctx) => drive(denoiseSteps(film, camera), ctx),

  async thumbnail({ project, part }, ctx) {
    const p = ctx.bricks.openProject(project);
    const steps = part === null ? projectThumbnailSteps(p) : partThumbnailSteps(p, must(p.parts, part, 'part'));
    return encodePng(THUMBNAIL, THUMBNAIL, await drive(steps, ctx)) as Uint8Array<ArrayBuffer>;
  },

  async grownPicture({ importer, options }, ctx) {
    const known = importerOf(importer)!;
    const job: ImportJob = { report: ctx.report, breathe: ctx.breathe, pictureSize };
    const { brought } = await known.run({ title: '', files: [] }, known.options.parse(options), job, null);
    if (brought.kind !== 'parts') throw new Error('Nothing was made up.');
    const steps = projectThumbnailSteps(brought.project, SMALL);
    return encodePng(SMALL, SMALL, await drive(steps, ctx)) as Uint8Array<ArrayBuffer>;
  },

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

  async deliveryChecks({ project, order, figures, standing }, ctx) {
    const p = ctx.bricks.openProject(project),
      { subject, profile } = order;
    const found =
      standing ?? (await drive(projects.standingFindingsSteps(p, subject, projects.showsSurfaces(profile)), ctx));
    return {
      findings: await drive(projects.deliveryChecksSteps(p, subject, profile, figures, found), ctx),
      standing: found,
    };
  },

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

  async picture({ exporter, source, options }, ctx) {
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
};

/** Edge of a picture to choose from, in pixels. */
const SMALL = 96;

/** Files that are made something of again and again, with every change of a wish. */
let lastHeld: { readonly name: string; readonly find: Find } | null = null;

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
