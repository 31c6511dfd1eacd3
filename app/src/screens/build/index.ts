import { IconHammer } from '@tabler/icons-vue';
import { partsInUse } from '@sphalerite/core/model';
import type { Screen } from '../../shell/screen';

export const buildScreen: Screen = {
  id: 'build',
  title: 'Build',
  icon: IconHammer,
  count: (p) => partsInUse(p.parts).length,
  wants: (p) => {
    const empty = partsInUse(p.parts).find((o) => o.layers.every((l) => l.grid.count === 0));
    return empty ? `“${empty.name}” has no cubes yet` : null;
  },
  benchSize: 22.4,
  help: {
    title: 'How Build goes',
    steps: [
      'Choose a part on the left; the others turn faint.',
      'Take a tool (keys 1–8) and a swatch.',
      'Hover shows what a click would touch. Drag on cubes to work, on empty ground to turn the view.',
      'M mirrors. Alt turns Add into Erase for a stroke.',
      'Shift+2 opens the colours, Shift+3 finishes such as planks and speckle.',
    ],
    lesson: {
      title: 'This is Tamsin. Change something',
      text: 'Pick a swatch below, then drag on her coat with “Add box”: first the footprint, then move up for the height and click.',
    },
  },
  pieces: async () => (await import('./pieces')).pieces,
};
