import type { ScreenModule } from '../../shell/screen';
import { lightControl } from './control';
import LightBench from './LightBench.vue';
import PictureOver from './PictureOver.vue';
import ShotProperties from './ShotProperties.vue';
import ShotsTray from './ShotsTray.vue';

export const screen: ScreenModule = {
  Tray: ShotsTray,
  Properties: ShotProperties,
  Bench: LightBench,
  Over: PictureOver,
  benchSize: 19,
  control: lightControl,
  guide: {
    title: 'How Light goes',
    steps: [
      'Choose a shot; turn the view and press C to let it look from here.',
      'Move sun, sky and glow on the right.',
      'T traces the picture. It can be stopped and saved at any time.',
    ],
  },
};
