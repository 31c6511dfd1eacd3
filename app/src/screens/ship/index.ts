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
      'Choose who it goes to; its files are made as you look, and what stands in the view is the file itself.',
      'Read the checks; each says what to do. The buttons over the view show wireframe, slots and colliders.',
      'E ships it: to the downloads, or into a folder that you link, over the files of last time.',
    ],
    lesson: {
      title: 'Send her out',
      text: '“Ship it” writes a file that game engines open: parts, bones, clips and a collider, with their names. Then go to the shelf and begin a small lamp of your own.',
    },
  },
  pieces: async () => (await import('./pieces')).pieces,
};
