import { IconSun } from '@tabler/icons-vue';
import type { Screen } from '../../shell/screen';

export const lightScreen: Screen = {
  id: 'light',
  title: 'Light',
  icon: IconSun,
  count: (p) => p.shots.length,
  wants: () => null,
  benchSize: 19,
  help: {
    title: 'How Light goes',
    steps: [
      'Choose a shot; turn the view and press C to let it look from here.',
      'Move sun, sky and glow on the right.',
      'T traces the picture. It can be stopped and saved at any time.',
    ],
    lesson: {
      title: 'Make a picture',
      text: 'Press “Trace the picture”. It grows clearer while you watch; save it as a PNG whenever you like it.',
    },
  },
  pieces: async () => (await import('./pieces')).pieces,
};
