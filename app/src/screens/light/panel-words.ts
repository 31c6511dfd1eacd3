import type { SkyKind, GroundKind } from '@sphalerite/core/model';
export type { CameraKind } from '@sphalerite/core/model';

/** A length in project units as metres are read. */
export function metresOf(units: number, metresPerUnit: number): string {
  const m = units * metresPerUnit;
  return `${m < 10 ? m.toFixed(m < 1 ? 2 : 1) : Math.round(m)} m`;
}

export const SKY_NAMES: Readonly<Record<SkyKind, string>> = {
  gradient: 'Two colours',
  picture: 'Picture of your own',
  overcast: 'Overcast',
  'blue hour': 'Blue hour',
  sunset: 'Sunset',
  forest: 'Forest',
  hall: 'Hall',
  studio: 'Studio',
  'night town': 'Night town',
  snow: 'Snow',
};
export const GROUND_NAMES: Readonly<Record<GroundKind, string>> = {
  none: 'None',
  shadow: 'Shadow only',
  colour: 'Colour',
  mirror: 'Mirror',
  water: 'Water',
  backdrop: 'Backdrop',
};
export const DRAWN = [
  { value: 'traced', text: 'traced' },
  { value: 'drawn', text: 'drawn' },
];
