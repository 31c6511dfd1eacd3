import type { ScreenPieces } from '../../shell/screen';
import BonesTray from './BonesTray.vue';
import BoneProperties from './BoneProperties.vue';
import RigBench from './RigBench.vue';
import { rigControl } from './control';

export const pieces: ScreenPieces = {
  Tray: BonesTray,
  Properties: BoneProperties,
  Bench: RigBench,

  control: rigControl,
};
