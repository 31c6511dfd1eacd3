import type { ScreenPieces } from '../../shell/screen';
import { lightControl } from './control';
import LightBench from './LightBench.vue';
import PictureOver from './PictureOver.vue';
import ShotProperties from './ShotProperties.vue';
import ShotsTray from './ShotsTray.vue';

export const pieces: ScreenPieces = {
  Tray: ShotsTray,
  Properties: ShotProperties,
  Bench: LightBench,
  Over: PictureOver,
  control: lightControl,
};
