import { EN } from './en';
import { type Params, speaker } from './speaker';

export { EN };
/** A sentence of this catalogue, filled in. */
export const say: (key: keyof typeof EN, params?: Params) => string = speaker(EN);
export { Refusal } from './refusal';
export { type Entry, speaker } from './speaker';
export type { Params };
export type WordKey = keyof typeof EN;
