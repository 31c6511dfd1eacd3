import type { ScreenPieces } from '../../shell/screen';
import { lightControl } from './control';
import LightBench from './LightBench.vue';
import LightOver from './LightOver.vue';
import ShotProperties from './ShotProperties.vue';
import ShotsTray from './ShotsTray.vue';

export const pieces: ScreenPieces = {
  Tray: ShotsTray,
  Properties: ShotProperties,
  Bench: LightBench,
  Over: LightOver,
  control: lightControl,
};
