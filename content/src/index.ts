import type { Project } from '@sphalerite/core/model';
import { buildTamsin } from './tamsin';

export { buildTamsin };
export { Maker, Sculptor } from './maker';

/** Every demo project by the name of its file. */
export const DEMOS: Readonly<Record<string, () => Project>> = { tamsin: buildTamsin };
