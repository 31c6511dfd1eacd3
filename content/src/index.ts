import type { Project } from '@sphalerite/core/model';
import { buildLampPost } from './lamp-post';
import { buildOswin } from './oswin';
import { buildTamsin } from './tamsin';

export { buildLampPost, buildOswin, buildTamsin };
export { Maker, Sculptor } from './maker';

/** Every demo project by the name of its file. */
export const DEMOS: Readonly<Record<string, () => Project>> = { tamsin: buildTamsin, 'lamp-post': buildLampPost, oswin: buildOswin };
