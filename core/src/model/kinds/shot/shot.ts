import * as z from 'zod';
import type { Id } from '../../ids';
import { mention, own } from '../../marks';
import { name, ticks } from '../fields';
import type { LooseJson, RecordKind } from '../record-kind';
import { type Camera, FIRST_CAMERA, PLAIN_LENS, cameraSchema } from './camera';
import { type Grade, NO_GRADE, gradeSchema } from './grade';
import { DEFAULT_LIGHT, type Light, lightSchema } from './light';
import { DEFAULT_OUTPUT, type Output, outputSchema } from './output';
import { DEFAULT_STAGE, type ShotStage, stageSchema } from './stage';

/** A picture that can be made again: what it shows, camera, light, what stands around, grading and output under one name. */
export interface Shot {
  readonly id: Id;
  readonly name: string;
  readonly camera: Camera;
  readonly light: Light;
  readonly stage: ShotStage;
  readonly grade: Grade;
  readonly output: Output;
  /** What is pictured; null is the rig. */
  readonly scene: Id | null;
  readonly clip: Id | null;
  /** The look that is pictured; null is the palette's own. */
  readonly colourway: Id | null;
  /** In ticks of the clip. */
  readonly time: number;
}

/** A shot but for what makes it itself. */
export type ShotSettings = Omit<Shot, 'id' | 'name'>;

export const makeShot = (id: Id, name: string, more: Partial<ShotSettings> = {}): Shot => ({
  id,
  name,
  camera: FIRST_CAMERA,
  light: DEFAULT_LIGHT,
  stage: DEFAULT_STAGE,
  grade: NO_GRADE,
  output: DEFAULT_OUTPUT,
  scene: null,
  clip: null,
  colourway: null,
  time: 0,
  ...more,
});

const GRADE_14 = { warmth: 0, tint: 0, curve: 'soft', contrast: 0, saturation: 0, bloom: 0, vignette: 0, grain: 0 };
const OUTPUT_14 = { denoise: true, transparent: false };

/** Up to format 13 a shot had a camera of two kinds, sun, sky, a floor and the glow, and no grading but exposure. */
function shotOf13({ camera, light, exposure, size, samples, ...rest }: LooseJson): LooseJson {
  const { sun, sky, ground, glow } = light as LooseJson;
  return {
    ...rest,
    camera: { ...(camera as object), ...PLAIN_LENS },
    light: {
      ...DEFAULT_LIGHT,
      sun,
      sky: { ...DEFAULT_LIGHT.sky, ...(sky as object) },
      glow: { ...DEFAULT_LIGHT.glow, strength: glow },
    },
    stage: { ...DEFAULT_STAGE, ground },
    grade: { ...GRADE_14, exposure },
    output: { ...OUTPUT_14, size, samples },
  };
}

/** Up to format 14 a shot became a picture and nothing else, without lines. */
const shotOf14 = ({ grade, output, ...rest }: LooseJson): LooseJson => ({
  ...rest,
  grade: { ...NO_GRADE, ...(grade as object) },
  output: { ...DEFAULT_OUTPUT, ...(output as object) },
});

/** Up to format 15 the camera went about in a `turn` and in no other way, and all samples were traced. */
function shotOf15({ camera, light, output, ...rest }: LooseJson): LooseJson {
  const { sky, ...others } = light as LooseJson,
    { makes, ...of } = output as LooseJson;
  const turns = makes === 'turn';
  return {
    ...rest,
    camera: { ...(camera as object), locked: false },
    light: { ...others, sky: { picture: null, ...(sky as object) } },
    output: {
      ...DEFAULT_OUTPUT,
      noise: 0,
      ...of,
      ...(turns ? { makes: 'path', path: { ...DEFAULT_OUTPUT.path, kind: 'orbit' } } : { makes }),
    },
  };
}

/** Up to format 16 time stood still while the camera went about. */
const shotOf16 = ({ output, ...rest }: LooseJson): LooseJson => {
  const { path, ...of } = output as LooseJson;
  return { ...rest, output: { ...of, path: { ...DEFAULT_OUTPUT.path, ...(path as object) } } };
};

export const shotKind: RecordKind<'shot', 'shots', Shot> = {
  name: 'shot',
  plural: 'shots',
  list: 'shots',
  most: 1024,
  schema: z.strictObject({
    id: own('shot'),
    name,
    camera: cameraSchema,
    light: lightSchema,
    stage: stageSchema,
    grade: gradeSchema,
    output: outputSchema,
    scene: mention('scene').nullable(),
    clip: mention('clip').nullable(),
    colourway: mention('colourway').nullable(),
    time: ticks,
  }),
  since: 1,
  upgrades: {
    // Colourways came with format 3.
    2: (s) => ({ colourway: null, ...s }),
    12: (s) => ({ scene: null, ...s }),
    13: shotOf13,
    14: shotOf14,
    15: shotOf15,
    16: shotOf16,
  },
  kept: z.strictObject({}),
};
