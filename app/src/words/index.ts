import { type Params, EN as REFUSALS, type WordKey as RefusalKey, speaker } from '@sphalerite/core/words';
import { EN } from './en';

export type WordKey = keyof typeof EN | RefusalKey;

/** The one catalogue: the sentences of the interface, and those with which the core refuses. */
export const CATALOGUE = { ...REFUSALS, ...EN };

/**
 * A sentence of the catalogue, filled in. Figures get their thousands; `n` decides between one and many as the language has it.
 *
 * @throws Error when something that the sentence names is not given
 */
export const say: (key: WordKey, params?: Params) => string = speaker(CATALOGUE);

/** How many there are of something: "1 bone", "2,616 cubes". */
export const counted = (
  n: number,
  what:
    | 'bones'
    | 'clips'
    | 'cubes'
    | 'deliveries'
    | 'keys'
    | 'palettes'
    | 'parts'
    | 'pieces'
    | 'scenes'
    | 'stamps'
    | 'swatches'
    | 'triangles',
): string => say(what, { n });
