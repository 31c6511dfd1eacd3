import type { ScreenModule } from '../../shell/screen';
import AnimateBench from './AnimateBench.vue';
import ClipsTray from './ClipsTray.vue';
import KeyProperties from './KeyProperties.vue';
import { animateControl } from './control';

export const screen: ScreenModule = {
  Tray: ClipsTray,
  Properties: KeyProperties,
  Bench: AnimateBench,
  benchSize: 34,
  control: animateControl,
  guide: {
    title: 'How Animate goes',
    steps: [
      'Choose a clip on the left. P plays it.',
      'Drag in the ruler to a frame, click a joint and drag a ring: a key is set.',
      'Drag keys in the lanes to move them in time, with Alt to draw them apart; drag a box to take several.',
      'Curves bend the way between keys; Ground shows soles that sink or slide.',
    ],
  },
};
