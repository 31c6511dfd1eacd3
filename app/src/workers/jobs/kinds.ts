import {
  type Delivered,
  type DeliveryOrder,
  type ExportOrder,
  type ExportPlan,
  type FaceShares,
  type Find,
  type Imported,
  type PictureSource,
  type Place,
  type SeriesSource,
  type TakePlan,
  type Written,
  type WrittenFile,
} from '@sphalerite/core/files';
import type { Axis, Box, Vec3 } from '@sphalerite/core/math';
import type { ChunkMesh, SceneCost } from '@sphalerite/core/mesh';
import type { Grade, SeriesFile, Shot } from '@sphalerite/core/model';
import type { DeliveryFigures, DeliveryFinding, StandingFindings } from '@sphalerite/core/project';
import type { PngStrip } from '@sphalerite/core/codec';
import type {
  Area,
  Coarse,
  DrawnFilm,
  Exposed,
  filmLayers,
  Had,
  Traced,
  Film,
  FilmLight,
  LightTile,
  TraceCamera,
} from '@sphalerite/core/render';
import type { RegionQuery } from '@sphalerite/core/sculpt';
import { type Clash, type ContactReport, type SceneFinding } from '@sphalerite/core/scene';
import type { JointStudy } from '@sphalerite/core/rig';
import type { BrickEntry } from '@sphalerite/core/voxel';
import type { BrickMirror, BrickParcel, PackedGrid, PackedProject, ReturnedGrid } from '../packed';
import type { ProjectPatch } from '../patch';

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
    input: {
      project: PackedProject;
      shot: Shot;
      size: readonly [number, number];
      lane: number;
      lanes: number;
      first?: Area | null;
      had?: readonly (Had | null)[];
    };
    output: null;
    partial: Traced;
  };
  /** What a shot becomes. */
  takePlan: { input: { project: PackedProject; shot: Shot }; output: TakePlan; partial: never };
  /** One of many pictures of a shot, as a PNG. */
  frame: {
    input: { project: PackedProject; shot: Shot; groundAlone: boolean };
    output: Uint8Array<ArrayBuffer>;
    partial: never;
  };
  /** What a film shows, as RGBA bytes. */
  develop: {
    input: { film: FilmLight; grade: Grade; transparent: boolean };
    output: { pixels: Uint8Array<ArrayBuffer>; exposed: Exposed };
    partial: never;
  };
  /** A picture that a view drew of a shot, with what is behind it, as a PNG. */
  drawnFrame: {
    input: { project: PackedProject; shot: Shot; film: DrawnFilm };
    output: Uint8Array<ArrayBuffer>;
    partial: never;
  };
  /** The same as a film. */
  drawnFilm: {
    input: { project: PackedProject; shot: Shot; film: DrawnFilm };
    output: FilmLight;
    partial: never;
  };
  /** A film without most of its noise. */
  denoise: { input: { film: Film; camera: TraceCamera; part: Area }; output: FilmLight; partial: never };
  /** Tiles of a large picture, each told once it is done. */
  tiles: {
    input: { project: PackedProject; shot: Shot; tiles: readonly Area[] };
    output: null;
    partial: Traced;
  };
  /** A piece of one, finished. @param camera – null to leave the noise in @param drawn – with what the eye met */
  piece: {
    input: { film: Film; camera: TraceCamera | null; piece: Area; drawn: boolean };
    output: LightTile;
    partial: never;
  };
  /** Its light in squares. @param height – of the whole picture */
  coarse: { input: { piece: LightTile; grade: Grade; height: number }; output: Coarse; partial: never };
  /** Light of the whole picture, spread about. */
  spread: { input: { squares: Coarse; height: number }; output: Coarse; partial: never };
  /** Some rows of it, developed: a strip of a PNG, or RGBA bytes. */
  strip: {
    input: {
      film: FilmLight;
      grade: Grade;
      transparent: boolean;
      spread: Coarse | null;
      rows: readonly [number, number];
      columns: readonly [number, number];
      as: 'png' | 'png16' | 'rgba';
      place: { readonly first: boolean; readonly last: boolean };
    };
    output: PngStrip;
    partial: never;
  };
  /** Some rows of its layers, as EXRs have them. */
  layers: {
    input: { film: FilmLight; transparent: boolean; rows: readonly [number, number]; layers: readonly Layer[] };
    output: Uint8Array<ArrayBuffer>[];
    partial: never;
  };
  /** RGBA bytes as a kind of picture that is written as a whole. */
  written: {
    input: { pixels: Blob; width: number; height: number; type: 'image/jpeg' | 'image/webp' };
    output: Blob;
    partial: never;
  };
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
  /** Pictures that follow one another as files, by an exporter. */
  series: { input: { exporter: string; source: SeriesSource; options: unknown }; output: Written; partial: never };
  /** The same as a video. */
  video: {
    input: { kind: Extract<SeriesFile, 'webm' | 'mp4'>; source: SeriesSource; fps: number };
    output: Written;
    partial: never;
  };
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
/** A layer of a film. */
export type Layer = keyof ReturnType<typeof filmLayers>;

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

/** What runs in a worker, and in a test without one. */
export type Handlers = {
  [K in JobKind]: (input: Jobs[K]['input'], ctx: JobContext<Jobs[K]['partial']>) => Promise<Jobs[K]['output']>;
};
