import {
  FACE_REACHES,
  PROFILES,
  REGION_KINDS,
  SECTIONS,
  STROKE_VERBS,
  TIPS,
  type FaceReach,
  type Profile,
  type RegionKind,
  type Section,
  type TipForm,
} from '@sphalerite/core/sculpt';
import * as z from 'zod';

export { FACE_REACHES, PROFILES, REGION_KINDS, SECTIONS, TIPS };
export const VERBS = [...STROKE_VERBS, 'select'] as const;
/** What a stroke does. */
export type Verb = (typeof VERBS)[number];
export const REACHES = [
  'point',
  'brush',
  'line',
  'box',
  'ellipsoid',
  'cylinder',
  'extrude',
  'fill',
  'stamp',
  'opening',
] as const;
/** What a stroke covers. */
export type Reach = (typeof REACHES)[number];
export const PATHS = ['straight', 'steps', 'curve'] as const;
export type Path = (typeof PATHS)[number];
export const STANDS = ['surface', 'X', 'Y', 'Z'] as const;
/** Ends of a hollow shape that are left open: that on which it stands, the other, both or none. */
export const OPEN_ENDS = ['closed', 'base', 'top', 'both'] as const;

/** Options of all reaches; each reach looks at its own. */
export interface CardOptions {
  /** Brush: form and width of the tip. Line: width at its ends. */
  readonly tip: TipForm;
  readonly size: number;
  readonly endSize: number;
  readonly path: Path;
  /** Cubes of a line meet in faces. */
  readonly joined: boolean;
  /** Slope of steps. */
  readonly rise: number;
  readonly run: number;
  /** Wall of a hollow shape in cubes; 0 is solid. */
  readonly wall: number;
  /** Cubes of a hollow wall meet in faces. */
  readonly tight: boolean;
  readonly ends: (typeof OPEN_ENDS)[number];
  readonly centre: boolean;
  readonly equal: boolean;
  /** What a cylinder stands along. */
  readonly stand: (typeof STANDS)[number];
  readonly profile: Profile;
  readonly section: Section;
  /** Width of a taper's end in percent. */
  readonly top: number;
  /** One slice a click. */
  readonly slices: boolean;
  /** How far a face reaches, for Extrude. */
  readonly face: FaceReach;
  readonly region: RegionKind;
  readonly diagonals: boolean;
  /** Added cubes take the colour of the cube they are built on. */
  readonly grow: boolean;
  readonly border: number;
  readonly proud: number;
  readonly recess: number;
  readonly sill: boolean;
  /** Palette byte that fills an opening, 0 for a hole. */
  readonly filling: number;
}
/** A card on the bench: a verb with a reach and its options. */
export interface ToolCard extends CardOptions {
  readonly name: string;
  readonly verb: Verb;
  readonly reach: Reach;
}

export const CARD_DEFAULTS: CardOptions = {
  tip: 'ball',
  size: 3,
  endSize: 1,
  path: 'straight',
  joined: false,
  rise: 1,
  run: 2,
  wall: 0,
  tight: false,
  ends: 'base',
  centre: false,
  equal: false,
  stand: 'surface',
  profile: 'straight',
  section: 'round',
  top: 50,
  slices: false,
  face: 'face',
  region: 'colour',
  diagonals: false,
  grow: false,
  border: 1,
  proud: 1,
  recess: 1,
  sill: true,
  filling: 0,
};
export const makeCard = (name: string, verb: Verb, reach: Reach, more: Partial<CardOptions> = {}): ToolCard => ({
  ...CARD_DEFAULTS,
  ...more,
  name,
  verb,
  reach,
});

/** The cards that lie ready on the bench, on the number keys. */
export const READY_CARDS: readonly ToolCard[] = [
  makeCard('Add box', 'add', 'box'),
  makeCard('Add point', 'add', 'point'),
  makeCard('Extrude', 'add', 'extrude', { grow: true }),
  makeCard('Erase box', 'erase', 'box'),
  makeCard('Paint fill', 'paint', 'fill'),
  makeCard('Paint brush', 'paint', 'brush'),
  makeCard('Select box', 'select', 'box'),
  makeCard('Hollow dome', 'add', 'cylinder', { profile: 'dome', wall: 2 }),
];

const D = CARD_DEFAULTS;
const cubes = (of: keyof CardOptions) => z.int().min(0).max(256).catch(Number(D[of]));
const yes = (of: keyof CardOptions) => z.boolean().catch(Boolean(D[of]));
/** A card from storage; options that it did not know yet, or that make no sense, are as they come. */
export const cardSchema: z.ZodType<ToolCard> = z.object({
  name: z.string().max(120),
  verb: z.enum(VERBS),
  reach: z.enum(REACHES),
  tip: z.enum(TIPS).catch(D.tip),
  size: cubes('size'),
  endSize: cubes('endSize'),
  path: z.enum(PATHS).catch(D.path),
  joined: yes('joined'),
  rise: cubes('rise'),
  run: cubes('run'),
  wall: cubes('wall'),
  tight: yes('tight'),
  ends: z.enum(OPEN_ENDS).catch(D.ends),
  centre: yes('centre'),
  equal: yes('equal'),
  stand: z.enum(STANDS).catch(D.stand),
  profile: z.enum(PROFILES).catch(D.profile),
  section: z.enum(SECTIONS).catch(D.section),
  top: cubes('top'),
  slices: yes('slices'),
  face: z.enum(FACE_REACHES).catch(D.face),
  region: z.enum(REGION_KINDS).catch(D.region),
  diagonals: yes('diagonals'),
  grow: yes('grow'),
  border: cubes('border'),
  proud: cubes('proud'),
  recess: cubes('recess'),
  sill: yes('sill'),
  filling: cubes('filling'),
});

/** The cards of a stored row that can be read. */
export const cardsSchema = z
  .array(z.unknown())
  .catch([])
  .transform((list) => list.flatMap((c) => cardSchema.safeParse(c).data ?? []));
