import type { ScreenPieces } from '../../shell/screen';
import BringBench from './BringBench.vue';
import PictureForm from './PictureForm.vue';
import SourceTray from './SourceTray.vue';
import { bringControl } from './control';

export const pieces: ScreenPieces = {
  Tray: SourceTray,
  Properties: PictureForm,
  Bench: BringBench,
  control: bringControl,
};
