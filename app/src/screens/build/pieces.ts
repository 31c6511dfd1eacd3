import type { ScreenPieces } from '../../shell/screen';
import BuildBench from './BuildBench.vue';
import { buildControl } from './control';
import PropertyTabs from './colours/PropertyTabs.vue';
import PartsTray from './PartsTray.vue';

export const pieces: ScreenPieces = {
  Tray: PartsTray,
  Properties: PropertyTabs,
  Bench: BuildBench,

  control: buildControl,
};
