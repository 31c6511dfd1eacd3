import type { ScreenPieces } from '../../shell/screen';
import AnimateBench from './AnimateBench.vue';
import ClipsTray from './ClipsTray.vue';
import KeyProperties from './KeyProperties.vue';
import { animateControl } from './control';

export const pieces: ScreenPieces = {
  Tray: ClipsTray,
  Properties: KeyProperties,
  Bench: AnimateBench,

  control: animateControl,
};
