import type { Box } from '../math';
import { type MirrorPlanes, NO_MIRROR } from './mirror';
import type { Stroke, StrokeVerb } from './stroke';

/** A stroke of plain boxes, as scripts and made-up content draw. */
export const boxStroke = (
  verb: StrokeVerb,
  value: number,
  boxes: readonly Box[],
  mirror: MirrorPlanes = NO_MIRROR,
): Stroke => ({ verb, value, shapes: boxes.map((box) => ({ kind: 'box', box })), symmetry: { mirror, radial: null } });
