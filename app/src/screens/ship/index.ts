import type { ScreenModule } from '../../shell/screen';
import { shipControl } from './control';
import OutputsTray from './OutputsTray.vue';
import ShipBench from './ShipBench.vue';
import ShipProperties from './ShipProperties.vue';

export const screen: ScreenModule = {
  Tray: OutputsTray,
  Properties: ShipProperties,
  Bench: ShipBench,
  benchSize: 24,
  control: shipControl,
  guide: {
    title: 'How Ship goes',
    steps: [
      'The file is made as you look: names, pivots, clips and colours go along.',
      'Read the checks; each says what to do.',
      'E saves the file.',
    ],
  },
};
