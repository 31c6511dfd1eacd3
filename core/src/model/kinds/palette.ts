import * as z from 'zod';
import { MAX_SWATCHES, type Palette } from '../../palette';
import { own } from '../marks';
import { byte, finite, hex, name, unit } from './fields';
import type { LooseJson, RecordKind } from './record-kind';

export const swatchSchema = z.strictObject({
  byte,
  name: z.string().max(120),
  colour: hex,
  emissive: finite.min(0).max(1000),
  roughness: unit,
  metalness: unit,
  opacity: unit,
  slot: z.string().max(120),
  helper: z.boolean(),
});

export const paletteKind: RecordKind<'palette', 'palettes', Palette> = {
  name: 'palette',
  plural: 'palettes',
  list: 'palettes',
  most: 64,
  schema: z.strictObject({ id: own('palette'), name, swatches: z.array(swatchSchema).max(MAX_SWATCHES) }),
  since: 1,
  upgrades: {
    // Helper swatches came with format 2.
    1: (p) => ({ ...p, swatches: (p['swatches'] as LooseJson[]).map((s) => ({ helper: false, ...s })) }),
  },
};
