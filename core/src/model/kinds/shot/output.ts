import * as z from 'zod';
import { finite, unit } from '../fields';

/** A picture, all frames of the clip, a path of the camera, or a sheet of small pictures for a game. */
export const MAKES = ['picture', 'clip', 'path', 'sprites'] as const;
export type Makes = (typeof MAKES)[number];
export const PICTURE_FILES = ['png', 'png16', 'jpeg', 'webp', 'exr'] as const;
export type PictureFile = (typeof PICTURE_FILES)[number];
/** Pictures that follow one another: in one file that plays, or one by one in a ZIP. */
export const SERIES_FILES = ['gif', 'webm', 'mp4', 'zip'] as const;
export type SeriesFile = (typeof SERIES_FILES)[number];
/** From how many sides sprites are seen. */
export const DIRECTIONS = [1, 2, 4, 8, 16] as const;

/** What turns or moves: what stands there, under light that stays; the camera about it; or the camera past it. */
export const PATH_KINDS = ['turntable', 'orbit', 'fly-past'] as const;
export type PathKind = (typeof PATH_KINDS)[number];

/** The way of a camera. */
export interface CameraPath {
  readonly kind: PathKind;
  /** Degrees that it reaches over, its middle where the camera stands; 360 go once about and end where they begin. */
  readonly reach: number;
  /** Whether it starts and stops slowly. */
  readonly eased: boolean;
  /** Whether what stands there plays on meanwhile. */
  readonly plays: boolean;
}

/** How sprites stand on their sheet. */
export interface Sprites {
  readonly directions: (typeof DIRECTIONS)[number];
  /** The clip of the shot alone, or all clips of the project. */
  readonly clips: 'one' | 'all';
  /** Pixels along the edge of a cube that is looked at square on. */
  readonly scale: number;
  /** Whether each is cut to what is in it; otherwise all have cells of one size. */
  readonly trim: boolean;
  /** Whether the shadow on the ground is a sheet of its own. */
  readonly shadow: boolean;
  /** Clear pixels about each. */
  readonly padding: number;
}

/** What a shot becomes, and how long is spent on it. */
export interface Output {
  readonly makes: Makes;
  readonly size: readonly [number, number];
  /** Most samples a pixel. */
  readonly samples: number;
  /** Whether noise that is left is taken out. */
  readonly denoise: boolean;
  /** Share of its light that a part of the picture may be uncertain by to be done before it has all samples; 0 takes all. */
  readonly noise: number;
  /** Whether it is drawn as the view draws, in place of being traced. */
  readonly drawn: boolean;
  /** Whether what is behind things is left out. */
  readonly transparent: boolean;
  /** Whether a picture is then cut to what is in it. */
  readonly cut: boolean;
  readonly file: PictureFile;
  /** Whether colour, normal and depth of what the eye meets are written beside an EXR. */
  readonly passes: boolean;
  readonly series: SeriesFile;
  /** Frames a second of whatever moves. */
  readonly fps: number;
  /** How long a path takes. */
  readonly seconds: number;
  readonly path: CameraPath;
  readonly sprites: Sprites;
}

export const MOST_EDGE = 8192;
export const MOST_SAMPLES = 65_536;

export const DEFAULT_OUTPUT: Output = {
  makes: 'picture',
  size: [640, 400],
  samples: 64,
  denoise: true,
  noise: 0.05,
  drawn: false,
  transparent: false,
  cut: false,
  file: 'png',
  passes: false,
  series: 'gif',
  fps: 12,
  seconds: 4,
  path: { kind: 'turntable', reach: 360, eased: false, plays: false },
  sprites: { directions: 8, clips: 'one', scale: 1, trim: false, shadow: false, padding: 1 },
};

export const makeOutput = (more: Partial<Output>): Output => ({ ...DEFAULT_OUTPUT, ...more });

const pixels = z.int().min(1).max(MOST_EDGE);
export const outputSchema = z.strictObject({
  makes: z.enum(MAKES),
  size: z.tuple([pixels, pixels]),
  samples: z.int().min(1).max(MOST_SAMPLES),
  denoise: z.boolean(),
  noise: unit,
  drawn: z.boolean(),
  transparent: z.boolean(),
  cut: z.boolean(),
  file: z.enum(PICTURE_FILES),
  passes: z.boolean(),
  series: z.enum(SERIES_FILES),
  fps: z.int().min(1).max(60),
  seconds: finite.min(0.1).max(600),
  path: z.strictObject({
    kind: z.enum(PATH_KINDS),
    reach: finite.min(1).max(3600),
    eased: z.boolean(),
    plays: z.boolean(),
  }),
  sprites: z.strictObject({
    directions: z.literal(DIRECTIONS),
    clips: z.enum(['one', 'all']),
    scale: z.int().min(1).max(64),
    trim: z.boolean(),
    shadow: z.boolean(),
    padding: z.int().min(0).max(64),
  }),
});
