import { type Swatch, makeSwatch } from '@sphalerite/core/palette';

/** Hand-picked ramps of Emberquay: night plum, wet slate, resin, honey, verdigris, skin by lamplight. */
const RAMPS = [
  ['honey', 'Honey', '#e3a127'],
  ['honeyLight', 'Honey, light', '#f6cc69'],
  ['honeyDark', 'Honey, shade', '#a76b14'],
  ['skinDark', 'Skin, shade', '#a8623f'],
  ['skin', 'Skin', '#d99668'],
  ['skinLight', 'Skin, light', '#efb98c'],
  ['blush', 'Blush', '#dd8266'],
  ['lip', 'Lip', '#a94f3f'],
  ['ink', 'Ink', '#1b1722'],
  ['milk', 'Milk', '#f4ecdc'],
  ['hairDark', 'Plum, shade', '#2c1d36'],
  ['hair', 'Plum', '#472d51'],
  ['hairLight', 'Plum, light', '#6d4970'],
  ['coatDeep', 'Resin, deep', '#561f10'],
  ['coatDark', 'Resin, shade', '#7d3312'],
  ['coat', 'Resin', '#a34e18'],
  ['coatLight', 'Resin, light', '#c66f2a'],
  ['greenDeep', 'Verdigris, deep', '#123735'],
  ['greenDark', 'Verdigris, shade', '#1c544e'],
  ['green', 'Verdigris', '#2a7a70'],
  ['greenLight', 'Verdigris, light', '#4ba592'],
  ['slateDark', 'Slate, shade', '#202933'],
  ['slate', 'Slate', '#35424f'],
  ['slateLight', 'Slate, light', '#52626f'],
  ['barkDark', 'Bark, shade', '#2c1b11'],
  ['bark', 'Bark', '#4a2f1e'],
  ['barkLight', 'Bark, light', '#6f4a2f'],
  ['hideDark', 'Hide, shade', '#6b4122'],
  ['hide', 'Hide', '#94602f'],
  ['hideLight', 'Hide, light', '#bd8a50'],
  ['ironDark', 'Iron, shade', '#1d2026'],
  ['iron', 'Iron', '#363b45'],
  ['ironLight', 'Iron, light', '#5b636f'],
] as const;

type Ramp = (typeof RAMPS)[number][0];

/** Palette bytes by short name. */
export const INK = {
  ...(Object.fromEntries(RAMPS.map(([key], i) => [key, i + 1])) as Record<Ramp, number>),
  glow: RAMPS.length + 1,
  flame: RAMPS.length + 2,
};

export const emberquaySwatches = (): Swatch[] => [
  ...RAMPS.map(([key, name, hex], i) =>
    makeSwatch(i + 1, name, hex, key.startsWith('iron') ? { metalness: 0.6, roughness: 0.45 } : {}),
  ),
  makeSwatch(INK.glow, 'Lamp glass', '#ffc866', { emissive: 5, roughness: 0.3 }),
  makeSwatch(INK.flame, 'Flame', '#fff0b8', { emissive: 9 }),
];
