import { IconFileImport } from '@tabler/icons-vue';
import type { Screen } from '../../shell/screen';

export const bringScreen: Screen = {
  id: 'bring',
  title: 'Bring in',
  icon: IconFileImport,
  beside: 'build',
  count: null,
  wants: () => null,
  benchSize: 20,
  help: {
    title: 'How bringing in goes',
    steps: [
      'What will come stands in the view, made anew with every wish; nothing is in the project yet.',
      'Drag the frame over the picture to cut some off; choose how wide it becomes and how many colours it keeps.',
      'Enter brings it in beside what is there; Escape leaves everything as it was.',
    ],
    lesson: {
      title: 'Begin with a picture',
      text: 'Drop a picture, a sign you drew or an old sprite: it becomes a part, a cube a pixel or as wide as you say.',
    },
  },
  pieces: async () => (await import('./pieces')).pieces,
};
