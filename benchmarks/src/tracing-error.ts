import { matrixOf } from '@sphalerite/core/math';
import { type Palette, makeSwatch } from '@sphalerite/core/palette';
import {
  type Film,
  type TraceScene,
  addTraced,
  denoised,
  makeFilm,
  surfacesOf,
  tileAreas,
  traceArea,
  traceCamera,
  traceFloor,
  traceInstance,
  traceLight,
  traceScene,
  traceSceneOf,
} from '@sphalerite/core/render';
import { makeLight } from '@sphalerite/core/model';
import { DEMOS } from '@sphalerite/content';
import { VoxelGrid } from '@sphalerite/core/voxel';
import * as frozen from '../frozen/tracer.js';

/** Pixels of the pictures that are compared. */
export const WIDTH = 240,
  HEIGHT = 135;

/** A picture for today's tracer and for the frozen one. */
export interface Compared {
  readonly name: string;
  readonly ours: TraceScene;
  readonly theirs: object;
}

/** Shots of the demo as they are, as small as the others: one with next to no noise but at edges, and one with much. */
export function demoPictures(): Pick<Compared, 'name' | 'ours'>[] {
  return (
    [
      ['Tamsin at dusk', 'tamsin'],
      ['the night market', 'night-market'],
    ] as const
  ).map(([name, file]) => {
    const project = DEMOS[file]!(),
      [shot] = project.shots;
    return { name, ours: traceSceneOf(project, shot!, [WIDTH, HEIGHT]) };
  });
}

const palette: Palette = {
  id: 'p',
  name: 'Bench',
  swatches: [
    makeSwatch(1, 'Plaster', '#d8cdbb', { roughness: 1 }),
    makeSwatch(2, 'Boards', '#7a5a3c', { roughness: 1 }),
    makeSwatch(3, 'Iron', '#2c3036', { roughness: 1 }),
    makeSwatch(4, 'Lamp glass', '#ffc866', { emissive: 8, roughness: 1 }),
    makeSwatch(5, 'Cloth', '#8f3b2e', { roughness: 1 }),
  ],
};

/** One lantern on a post in the evening, its glass behind bars. */
function lantern(): VoxelGrid {
  return VoxelGrid.empty({ min: [-8, 0, -8], size: [16, 44, 16] }).edit((d) => {
    d.fillBox({ min: [-3, 0, -3], size: [6, 3, 6] }, 3);
    d.fillBox({ min: [-1, 3, -1], size: [2, 26, 2] }, 3);
    d.fillBox({ min: [-4, 29, -4], size: [8, 1, 8] }, 3);
    d.fillBox({ min: [-3, 30, -3], size: [6, 7, 6] }, 4);
    for (const x of [-4, 3]) for (const z of [-4, 3]) d.fillBox({ min: [x, 30, z], size: [1, 7, 1] }, 3);
    d.fillBox({ min: [-5, 37, -5], size: [10, 1, 10] }, 3);
    d.fillBox({ min: [-3, 38, -3], size: [6, 2, 6] }, 3);
    d.fillBox({ min: [5, 0, 2], size: [3, 5, 4] }, 5);
  });
}

/** A closed room with two lamps, a table and things that stand about. */
function room(): VoxelGrid {
  return VoxelGrid.empty({ min: [0, 0, 0], size: [72, 44, 56] }).edit((d) => {
    d.fillBox(d.bounds, 1);
    d.fillBox({ min: [1, 1, 1], size: [70, 42, 54] }, 0);
    d.fillBox({ min: [1, 1, 1], size: [70, 1, 54] }, 2);
    for (let x = 1; x < 71; x += 9) d.fillBox({ min: [x, 38, 1], size: [2, 4, 54] }, 2);
    d.fillBox({ min: [24, 14, 20], size: [24, 2, 14] }, 2);
    for (const x of [25, 45]) for (const z of [21, 31]) d.fillBox({ min: [x, 2, z], size: [2, 12, 2] }, 2);
    d.fillBox({ min: [4, 2, 4], size: [12, 18, 9] }, 5);
    d.fillBox({ min: [52, 2, 6], size: [14, 26, 6] }, 2);
    d.fillBox({ min: [34, 28, 25], size: [4, 4, 4] }, 4);
    d.fillBox({ min: [33, 32, 24], size: [6, 1, 6] }, 3);
    d.fillBox({ min: [8, 20, 6], size: [3, 4, 3] }, 4);
  });
}

const AT_HOME = matrixOf({ t: [0, 0, 0], q: [0, 0, 0, 1], s: [1, 1, 1] });

/** The lantern on the quay and the lit room, for both. */
export function comparedPictures(): Compared[] {
  const evening = makeLight({
    sun: { azimuth: -60, elevation: 12, size: 6, colour: '#8fa6d8', strength: 0.25 },
    sky: { zenith: '#1f2b4f', horizon: '#6a6f94', strength: 0.35 },
  });
  const dark = makeLight({ sun: { ...evening.sun, strength: 0 }, sky: { ...evening.sky, strength: 0 } });
  const of = (
    name: string,
    grid: VoxelGrid,
    light: typeof dark,
    camera: { eye: [number, number, number]; target: [number, number, number]; fov: number },
    ground: 'none' | 'colour',
  ): Compared => {
    const view = { kind: 'perspective' as const, height: 1, ...camera };
    const floor = { kind: ground, colour: '#6b6470' };
    const away = Math.hypot(...camera.eye.map((v, a) => v - camera.target[a]!));
    const fade = [away * 2, away * 9] as const;
    return {
      name,
      ours: traceScene({
        instances: [traceInstance(grid, surfacesOf(palette, 1), AT_HOME)!],
        light: traceLight(light),
        floor: traceFloor({ ground: floor }, 0, { fade }),
        camera: traceCamera(view, WIDTH, HEIGHT),
        width: WIDTH,
        height: HEIGHT,
      }),
      theirs: {
        ...frozen.traceBodies([frozen.traceInstance(grid, frozen.surfacesOf(palette, 1), AT_HOME)!]),
        light: frozen.traceLight({ sun: light.sun, sky: light.sky, ground: floor, glow: 1 }, 0, fade),
        camera: frozen.traceCamera(view, WIDTH, HEIGHT),
        width: WIDTH,
        height: HEIGHT,
      },
    };
  };
  return [
    of('a lantern in the evening', lantern(), evening, { eye: [34, 26, 62], target: [2, 19, 0], fov: 34 }, 'colour'),
    of('a lit room', room(), dark, { eye: [64, 26, 50], target: [30, 14, 14], fov: 62 }, 'none'),
  ];
}

/** A picture as means of light, 3 a pixel. */
type Picture = Float32Array;

function ourFilm(s: TraceScene, first: number, samples: number): Film {
  const film = makeFilm(WIDTH, HEIGHT);
  for (const area of tileAreas(WIDTH, HEIGHT)) addTraced(film, traceArea(s, area, first, samples));
  return film;
}
function pictureOf(film: Pick<Film, 'tiles'> | ReturnType<typeof denoised>): Picture {
  const out = new Float32Array(WIDTH * HEIGHT * 3);
  for (const t of film.tiles)
    if (t)
      for (let y = 0; y < t.height; y++)
        for (let i = 0; i < t.width * 3; i++)
          out[((t.y + y) * WIDTH + t.x) * 3 + i] = t.light[y * t.width * 3 + i]! / t.samples;
  return out;
}
function theirPicture(scene: object, first: number, samples: number): Picture {
  const whole = { x: 0, y: 0, width: WIDTH, height: HEIGHT };
  return frozen.traceArea(scene, whole, first, samples).light.map((v) => v / samples);
}

/** Mean of the squared difference over the squared truth, so that dark counts as much as bright. */
export function relativeError(picture: Picture, truth: Picture): number {
  let sum = 0;
  for (let i = 0; i < truth.length; i++) sum += (picture[i]! - truth[i]!) ** 2 / (truth[i]! ** 2 + 0.01);
  return sum / truth.length;
}

/** Error of one way of making a picture, and what it takes. */
export interface Made {
  readonly samples: number;
  readonly error: number;
  readonly ms: number;
  /** Its light in the mean. */
  readonly mean: number;
}

export interface Comparison {
  readonly name: string;
  /** By rising samples. */
  readonly theirs: readonly Made[];
  readonly raw: readonly Made[];
  readonly calm: readonly Made[];
}

const middle = (times: number[]): number => times.sort((a, b) => a - b)[times.length >> 1]!;
const timed = (make: () => unknown): number => {
  const start = performance.now();
  make();
  return performance.now() - start;
};

/** Pictures of several counts of samples, and what is told of them against one of many. */
function madeOf(ours: TraceScene, truthSamples: number) {
  const truth = pictureOf(ourFilm(ours, 1 << 17, truthSamples));
  const films = [4, 8, 16, 32, 64, 96, 256].map((n) => [n, ourFilm(ours, 0, n)] as const);
  const made = (picture: Picture, samples: number, ms: number): Made => ({
    ...{ samples, ms, error: relativeError(picture, truth) },
    mean: picture.reduce((a, b) => a + b, 0) / picture.length,
  });
  return { films, made };
}

/** Errors of a picture as it is and without its noise, not timed. */
export function noiseOf({ ours }: Pick<Compared, 'ours'>, truthSamples: number): Pick<Comparison, 'raw' | 'calm'> {
  const { films, made } = madeOf(ours, truthSamples);
  return {
    raw: films.map(([n, f]) => made(pictureOf(f), n, 0)),
    calm: films.map(([n, f]) => made(pictureOf(denoised(f, ours.camera)), n, 0)),
  };
}

/**
 * Errors of both tracers at several counts of samples, against a picture of many by today's. Times are those of a sample, taken in turn,
 * so that what else the machine does slows both.
 */
export function compared({ name, ours, theirs }: Compared, truthSamples = 2048): Comparison {
  const { films, made } = madeOf(ours, truthSamples);
  const theirCounts = [4, 8, 16, 32, 64, 128, 256];
  const theirPictures = theirCounts.map((n) => theirPicture(theirs, 0, n));
  const [our, their, calming]: number[][] = [[], [], []];
  for (let round = 0; round < 7; round++) {
    our!.push(timed(() => ourFilm(ours, 0, 8)) / 8);
    their!.push(timed(() => theirPicture(theirs, 0, 8)) / 8);
    calming!.push(timed(() => denoised(films[2]![1], ours.camera)));
  }
  const [perOurs, perTheirs, perCalm] = [middle(our!), middle(their!), middle(calming!)];
  return {
    name,
    theirs: theirCounts.map((n, i) => made(theirPictures[i]!, n, n * perTheirs)),
    raw: films.map(([n, f]) => made(pictureOf(f), n, n * perOurs)),
    calm: films.map(([n, f]) => made(pictureOf(denoised(f, ours.camera)), n, n * perOurs + perCalm)),
  };
}

/** The time one way needs for an error, between the counts that were made (on logarithmic scales); beyond them by the last two. */
export function timeFor(wanted: number, made: readonly Made[]): number {
  const at = made.findIndex((m) => m.error <= wanted);
  const i = at < 0 ? made.length - 1 : Math.max(1, at);
  const [a, b] = [made[i - 1]!, made[i]!];
  const k = (Math.log(wanted) - Math.log(a.error)) / (Math.log(b.error) - Math.log(a.error));
  return Math.exp(Math.log(a.ms) + k * (Math.log(b.ms) - Math.log(a.ms)));
}
