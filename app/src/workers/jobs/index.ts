import type { Handlers, JobKind } from './kinds';

export type { JobContext, JobKind, Jobs, Layer, PackedBrought, PackedSet } from './kinds';

// A worker loads what it is asked for: the first picture of a project waits for no exporter.
const grids = () => import('./grids').then((m) => m.gridJobs);
const projects = () => import('./projects').then((m) => m.projectJobs);
const pictures = () => import('./pictures').then((m) => m.pictureJobs);
const large = () => import('./large').then((m) => m.largeJobs);
const videos = () => import('./video').then((m) => m.videoJobs);
const files = () => import('./files').then((m) => m.fileJobs);

const loaders: { readonly [K in JobKind]: () => Promise<Pick<Handlers, K>> } = {
  mesh: grids,
  coarser: grids,
  region: grids,
  untidy: grids,
  inner: grids,
  study: grids,
  edit: projects,
  motion: projects,
  scene: projects,
  deliveryChecks: projects,
  trace: pictures,
  denoise: pictures,
  takePlan: files,
  frame: pictures,
  drawnFrame: pictures,
  drawnFilm: pictures,
  develop: pictures,
  thumbnail: pictures,
  tiles: large,
  piece: large,
  coarse: large,
  spread: large,
  strip: large,
  layers: large,
  written: large,
  export: files,
  deliver: files,
  zip: files,
  plan: files,
  picture: files,
  series: files,
  video: videos,
  bringIn: files,
  grownPicture: files,
};

/** What does a job; its code is loaded when it is asked for first. */
export const handlerOf = async <K extends JobKind>(kind: K): Promise<Handlers[K]> => (await loaders[kind]())[kind];
