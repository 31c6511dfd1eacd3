import { IconKeyframes } from '@tabler/icons-vue';
import type { Screen } from '../../shell/screen';

export const animateScreen: Screen = {
  id: 'animate',
  title: 'Animate',
  icon: IconKeyframes,
  count: (p) => p.clips.length,
  wants: (p) => {
    const bare = p.clips.find((c) => c.lanes.length === 0);
    return bare ? `“${bare.name}” has no keys yet` : null;
  },
  benchSize: 34,
  help: {
    title: 'How Animate goes',
    steps: [
      'Choose a clip on the left. P plays it.',
      'Drag in the ruler to a frame, click a joint and drag a ring: a key is set.',
      'Drag keys in the lanes to move them in time, with Alt to draw them apart; drag a box to take several.',
      'Curves bend the way between keys; Ground shows soles that sink or slide.',
    ],
    lesson: {
      title: 'Let her walk',
      text: 'Press P to play the walk. Drag in the ruler to stop at a frame; turn a bone there and a key is set for you.',
    },
  },
  pieces: async () => (await import('./pieces')).pieces,
};
