import { type Swatch, makeSwatch } from '@sphalerite/core/palette';
import { emberquaySwatches } from './emberquay-palette';

const MORE = [
  ['plaster', 'Plaster', '#d9c7a3'],
  ['plasterDark', 'Plaster, shade', '#c4ae86'],
  ['roof', 'Roof', '#93362d'],
  ['roofDark', 'Roof, shade', '#742722'],
  ['roofLight', 'Roof, light', '#ad4a3c'],
  ['sett', 'Sett', '#757b84'],
  ['settDark', 'Sett, shade', '#646a74'],
  ['settLight', 'Sett, light', '#8a9097'],
  ['joint', 'Joint', '#565c66'],
  ['water', 'Canal', '#1d4c59'],
  ['waterLight', 'Canal, ripple', '#2a6470'],
  ['leaf', 'Leaf', '#4f7148'],
  ['leafLight', 'Leaf, light', '#6f8c4d'],
  ['leafDark', 'Leaf, shade', '#38562f'],
  ['awning', 'Awning', '#2a7a70'],
  ['awningDark', 'Awning, shade', '#1c544e'],
  ['cherry', 'Cherry', '#b23a2c'],
  ['orange', 'Orange', '#d9822b'],
  ['lime', 'Lime', '#9db348'],
  ['fish', 'Fish', '#9fb4bd'],
  ['cloth', 'Cloth', '#6d4970'],
] as const;
type More = (typeof MORE)[number][0];
const FIRST = emberquaySwatches().length + 1;

/** Palette bytes of the market's own colours by short name. */
export const MARKET = {
  ...(Object.fromEntries(MORE.map(([key], i) => [key, FIRST + i])) as Record<More, number>),
  window: FIRST + MORE.length,
  red: FIRST + MORE.length + 1,
  teal: FIRST + MORE.length + 2,
};

export const marketSwatches = (): Swatch[] => [
  ...emberquaySwatches(),
  ...MORE.map(([key, name, hex], i) =>
    makeSwatch(FIRST + i, name, hex, key.startsWith('water') ? { roughness: 0.06 } : {}),
  ),
  makeSwatch(MARKET.window, 'Lit window', '#ffd08a', { emissive: 2.2, roughness: 0.4 }),
  makeSwatch(MARKET.red, 'Red lantern', '#f0694a', { emissive: 4, roughness: 0.4 }),
  makeSwatch(MARKET.teal, 'Teal lantern', '#6fd8bf', { emissive: 3, roughness: 0.4 }),
];
