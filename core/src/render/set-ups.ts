import { DEFAULT_LIGHT, type Shot, makeGrade, makeLight } from '../model';
import { sunAt } from './time-of-day';

/** Light, ground and grading that suit whatever stands there. */
export interface SetUp {
  readonly id: 'day' | 'dusk' | 'studio';
  readonly title: string;
  readonly settings: Pick<Shot, 'light' | 'grade'>;
  readonly ground: Shot['stage']['ground'];
}
export const SET_UPS: readonly SetUp[] = [
  {
    id: 'day',
    title: 'Clear day',
    settings: {
      light: makeLight({
        sun: { ...DEFAULT_LIGHT.sun, ...sunAt(10.5), size: 2, strength: 2.1 },
        sky: { kind: 'gradient', zenith: '#7fa8d6', horizon: '#e6e6e2', strength: 0.75 },
      }),
      grade: makeGrade({ curve: 'neutral', exposure: -0.35, contrast: 0.06 }),
    },
    ground: { kind: 'colour', colour: '#b9b2a5' },
  },
  {
    id: 'dusk',
    title: 'Blue hour',
    settings: {
      light: makeLight({
        sun: { azimuth: -110, elevation: 14, size: 8, colour: '#8fa6e0', strength: 0.25 },
        sky: { kind: 'blue hour', strength: 0.9, turn: 40 },
        glow: { strength: 1.2 },
      }),
      grade: makeGrade({ curve: 'soft', exposure: 0.7, bloom: 0.1, vignette: 0.2 }),
    },
    ground: { kind: 'colour', colour: '#4a4f5c' },
  },
  {
    id: 'studio',
    title: 'Studio, soft',
    settings: {
      light: makeLight({
        sun: { ...DEFAULT_LIGHT.sun, strength: 0 },
        sky: { kind: 'studio', strength: 1, seen: false, turn: 0 },
      }),
      grade: makeGrade({ curve: 'neutral', exposure: -0.05 }),
    },
    ground: { kind: 'backdrop', colour: '#d8d2c6' },
  },
];
