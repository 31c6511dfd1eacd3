import type { ScreenModule } from '../../shell/screen';
import BuildBench from './BuildBench.vue';
import { buildControl } from './control';
import PropertyTabs from './colours/PropertyTabs.vue';
import PartsTray from './PartsTray.vue';

export const screen: ScreenModule = {
  Tray: PartsTray,
  Properties: PropertyTabs,
  Bench: BuildBench,
  benchSize: 22.4,
  control: buildControl,
  guide: {
    title: 'How Build goes',
    steps: [
      'Choose a part on the left; the others turn faint.',
      'Take a tool (keys 1–8) and a swatch.',
      'Hover shows what a click would touch. Drag on cubes to work, on empty ground to turn the view.',
      'M mirrors. Alt turns Add into Erase for a stroke.',
      'Shift+2 opens the colours, Shift+3 finishes such as planks and speckle.',
    ],
  },
};
