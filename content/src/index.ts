import type { Project } from '@sphalerite/core/model';
import { buildLampPost } from './lamp-post';
import { buildNightMarket } from './night-market';
import { buildOswin } from './oswin';
import { buildOswinRigged } from './oswin-rigged';
import { buildBiped } from './ready/biped';
import { buildHingedProp } from './ready/hinged-prop';
import { buildQuadruped } from './ready/quadruped';
import { buildRowBoat } from './row-boat';
import { buildSedgeBank } from './sedge-bank';
import { buildStamps } from './stamps';
import { buildTamsin } from './tamsin';

export { buildLampPost, buildOswin, buildTamsin };
export { Maker, Sculptor } from './maker';

/** Every demo project by the name of its file. */
export const DEMOS: Readonly<Record<string, () => Project>> = {
  tamsin: buildTamsin,
  'lamp-post': buildLampPost,
  oswin: buildOswin,
  'oswin-rigged': buildOswinRigged,
  'row-boat': buildRowBoat,
  'sedge-bank': buildSedgeBank,
  'night-market': buildNightMarket,
};

/** Shelves that come along beside the demo projects, by the name of their file. */
export const SHELVES: Readonly<Record<string, () => Project>> = { stamps: buildStamps };

/** Every ready rig by the name of its file. */
export const READY_RIGS: Readonly<Record<string, () => Project>> = {
  'ready-biped': buildBiped,
  'ready-quadruped': buildQuadruped,
  'ready-hinged-prop': buildHingedProp,
};
