import { IconSailboat } from '@tabler/icons-vue';
import type { Screen } from '../../shell/screen';

export const shipScreen: Screen = {
  id: 'ship',
  title: 'Ship',
  icon: IconSailboat,
  count: null,
  wants: () => null,
  benchSize: 24,
  help: {
    title: 'How Ship goes',
    steps: [
      'The file is made as you look: names, pivots, clips and colours go along.',
      'Read the checks; each says what to do.',
      'E saves the file.',
    ],
    lesson: {
      title: 'Send her out',
      text: '“Save the GLB” writes a file that game engines open: parts, bones and clips with their names. Then go to the shelf and begin a small lamp of your own.',
    },
  },
  pieces: async () => (await import('./pieces')).pieces,
};
