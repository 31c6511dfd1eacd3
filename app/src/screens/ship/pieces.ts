import type { ScreenPieces } from '../../shell/screen';
import { shipControl } from './control';
import DeliveriesTray from './DeliveriesTray.vue';
import ShipBench from './ShipBench.vue';
import ShipProperties from './ShipProperties.vue';

export const pieces: ScreenPieces = {
  Tray: DeliveriesTray,
  Properties: ShipProperties,
  Bench: ShipBench,

  control: shipControl,
};
