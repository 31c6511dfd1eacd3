import { type Swatch, makeSwatch } from './swatch';

type Row = readonly [name: string, colour: string, more?: Partial<Swatch>];
const laid = (rows: readonly Row[]): readonly Swatch[] =>
  rows.map(([name, colour, more], i) => makeSwatch(i + 1, name, colour, more));

/** A palette to begin with. */
export interface ReadyPalette {
  readonly name: string;
  /** What it is good for, in a few words. */
  readonly mood: string;
  readonly swatches: readonly Swatch[];
}

/** Clay, oak, moss, water, stone and lamplight, each in two or three tones: enough for a first piece. */
const STARTER: readonly Row[] = [
  ['Clay', '#b5533a'],
  ['Blush', '#e09b7d'],
  ['Brick', '#7a2f25'],
  ['Oak', '#7d5a38'],
  ['Straw', '#cda873'],
  ['Bark', '#4a3222'],
  ['Pine', '#1f4a45'],
  ['Moss', '#3f7d5c'],
  ['Reed', '#9cc084'],
  ['Canal', '#254a6b'],
  ['Sky', '#6fa3c4'],
  ['Chalk', '#eceae2'],
  ['Mist', '#9aa4ad'],
  ['Slate', '#4c5563'],
  ['Soot', '#23201e'],
  ['Lamplight', '#ffd27a', { emissive: 4 }],
];

/** Lamps being lit over a canal: ramps that lean to plum in the shade and to honey in the light. */
const QUAYSIDE_DUSK: readonly Row[] = [
  ['Ink', '#17131f'],
  ['Night', '#262139'],
  ['Plum', '#43305a'],
  ['Heather', '#6e4f83'],
  ['Mauve', '#a07fa8'],
  ['Wine', '#4a1a2a'],
  ['Madder', '#7d2b33'],
  ['Tile', '#b04a3f'],
  ['Coral', '#dd7f63'],
  ['Shell', '#f3bd9d'],
  ['Umber', '#33201a'],
  ['Walnut', '#57372a'],
  ['Chestnut', '#855639'],
  ['Tan', '#b98955'],
  ['Sand', '#dfbd87'],
  ['Cream', '#f6ead0'],
  ['Rust', '#8a3b12'],
  ['Amber', '#c96f1c'],
  ['Honey', '#eba531'],
  ['Straw', '#f7d77a'],
  ['Deep teal', '#0f3338'],
  ['Teal', '#1d5c5c'],
  ['Verdigris', '#3d8f81'],
  ['Mint', '#86c9aa'],
  ['Navy', '#1c2c4a'],
  ['Canal', '#32527d'],
  ['Evening', '#6487b0'],
  ['Haze', '#a9c0d2'],
  ['Slate', '#3a434d'],
  ['Stone', '#6f7a82'],
  ['Lamp glass', '#ffc866', { emissive: 5, roughness: 0.3 }],
  ['Window', '#bfe3e6', { opacity: 0.4, roughness: 0.1 }],
  ['Brass', '#c99b45', { metalness: 0.9, roughness: 0.3 }],
];

/** First light on a reed bank: greens, water and clay under a pale sky, with petals for the accents. */
const REEDBANK_MORNING: readonly Row[] = [
  ['Chalk', '#f5f2e8'],
  ['Oat', '#e2d8bf'],
  ['Dry clay', '#c9b08c'],
  ['Loam', '#8d6b4a'],
  ['Peat', '#5a4130'],
  ['Root', '#33251d'],
  ['Fern, shade', '#1d3b27'],
  ['Fern', '#2f6236'],
  ['Leaf', '#558b3e'],
  ['Reed', '#93b54b'],
  ['Sprout', '#cfd976'],
  ['Pool, deep', '#123a4c'],
  ['Pool', '#1f6480'],
  ['Stream', '#4497b0'],
  ['Shallows', '#8ecbd1'],
  ['Foam', '#d6eeea'],
  ['Iris, shade', '#4d3f6b'],
  ['Iris', '#7a62a3'],
  ['Lilac', '#b59acb'],
  ['Poppy, shade', '#7c2230'],
  ['Poppy', '#c23b3a'],
  ['Rose', '#e88377'],
  ['Petal', '#f6c1ae'],
  ['Marigold', '#d98722'],
  ['Buttercup', '#f2c23e'],
  ['Heron, shade', '#2b3137'],
  ['Heron', '#56616a'],
  ['Feather', '#8e9aa1'],
  ['Mist', '#c3cccd'],
  ['Water', '#3f93ab', { opacity: 0.55, roughness: 0.08 }],
  ['Copper', '#b5683f', { metalness: 0.9, roughness: 0.35 }],
  ['Firefly', '#f4ff9a', { emissive: 4 }],
];

/** Palettes that ship with the program; the first is what a new project has unless another is chosen. */
export const READY_PALETTES: readonly ReadyPalette[] = [
  { name: 'Starter', mood: 'sixteen, for a first piece', swatches: laid(STARTER) },
  { name: 'Quayside dusk', mood: 'plum shade, honey light', swatches: laid(QUAYSIDE_DUSK) },
  { name: 'Reedbank morning', mood: 'greens, water and petals', swatches: laid(REEDBANK_MORNING) },
  { name: 'One swatch', mood: 'begin from nothing', swatches: laid([['Clay', '#b5533a']]) },
];
