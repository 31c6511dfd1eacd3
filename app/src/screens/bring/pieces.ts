import type { ScreenPieces } from '../../shell/screen';
import BringBench from './BringBench.vue';
import BringForm from './BringForm.vue';
import SourceTray from './SourceTray.vue';
import { bringControl } from './control';

export const pieces: ScreenPieces = {
  Tray: SourceTray,
  Properties: BringForm,
  Bench: BringBench,
  control: bringControl,
};
