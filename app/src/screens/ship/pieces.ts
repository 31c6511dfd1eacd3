import type { ScreenPieces } from '../../shell/screen';
import { shipControl } from './control';
import OutputsTray from './OutputsTray.vue';
import ShipBench from './ShipBench.vue';
import ShipProperties from './ShipProperties.vue';

export const pieces: ScreenPieces = {
  Tray: OutputsTray,
  Properties: ShipProperties,
  Bench: ShipBench,

  control: shipControl,
};
