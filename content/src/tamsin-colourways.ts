import type { SwatchLook } from '@sphalerite/core/palette';
import { addColourwayEdit, editSwatchEdit } from '@sphalerite/core/project';
import { INK } from './emberquay-palette';
import type { Maker } from './maker';

type Look = Partial<SwatchLook> | string;

/** Four sets of clothes for Tamsin, each hand-picked ramp from shade to light. */
const WAYS: Readonly<Record<string, Partial<Record<keyof typeof INK, Look>>>> = {
  'Night watch': {
    coatDeep: '#11152e',
    coatDark: '#1c2549',
    coat: '#2c3a6b',
    coatLight: '#44578f',
    greenDeep: '#33140f',
    greenDark: '#5c2018',
    green: '#8f3526',
    greenLight: '#bb5640',
    honeyDark: '#6b7482',
    honey: { colour: '#a9b4c2', metalness: 0.85, roughness: 0.3 },
    honeyLight: { colour: '#d5dde6', metalness: 0.85, roughness: 0.25 },
    glow: '#9fd4ff',
    flame: '#e6f6ff',
  },
  'Frost fair': {
    coatDeep: '#5a6f80',
    coatDark: '#8ba3b2',
    coat: '#bccdd6',
    coatLight: '#e3edf0',
    greenDeep: '#4a0f1c',
    greenDark: '#7c1c2a',
    green: '#b53240',
    greenLight: '#d9615f',
    slateDark: '#3b2f3a',
    slate: '#584656',
    slateLight: '#7b6577',
    hairDark: '#3a2117',
    hair: '#6b3c22',
    hairLight: '#9a6238',
    honey: '#d9b45a',
    honeyLight: '#f3dd97',
    honeyDark: '#94732c',
  },
  Reedcutter: {
    coatDeep: '#1d2a14',
    coatDark: '#33471f',
    coat: '#55702f',
    coatLight: '#7d9645',
    greenDeep: '#4b2f0c',
    greenDark: '#7d5216',
    green: '#b98326',
    greenLight: '#dcb04f',
    slateDark: '#33261a',
    slate: '#55402b',
    slateLight: '#7a6042',
    hairDark: '#3d3324',
    hair: '#746143',
    hairLight: '#a89469',
    honey: '#c9613b',
    honeyLight: '#e69066',
    honeyDark: '#8a3a20',
  },
  'Fair queen': {
    coatDeep: '#3a1033',
    coatDark: '#611b50',
    coat: '#8e2f70',
    coatLight: '#b8558f',
    greenDeep: '#5c3c0a',
    greenDark: '#94650f',
    green: { colour: '#d39a25', metalness: 0.6, roughness: 0.35 },
    greenLight: { colour: '#f2c95c', metalness: 0.6, roughness: 0.3 },
    slateDark: '#241a38',
    slate: '#3d2d5c',
    slateLight: '#5e4a84',
    hairDark: '#5c2210',
    hair: '#9a3d19',
    hairLight: '#cc6a34',
    honey: '#f0e2c0',
    honeyLight: '#fff6df',
    honeyDark: '#b79a66',
    glow: '#ff9fc0',
    flame: '#ffe3ee',
  },
};

export function tamsinColourways(m: Maker): void {
  const palette = m.project.palettes[0]!.id;
  for (const [name, looks] of Object.entries(WAYS)) {
    m.apply(addColourwayEdit, { name });
    const colourway = m.project.colourways.at(-1)!.id;
    for (const [key, look] of Object.entries(looks))
      m.apply(editSwatchEdit, {
        palette,
        byte: INK[key as keyof typeof INK],
        change: typeof look === 'string' ? { colour: look } : look,
        colourway,
      });
  }
}
