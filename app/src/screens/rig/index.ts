import { IconBone } from '@tabler/icons-vue';
import { looseParts } from '@sphalerite/core/model';
import type { Screen } from '../../shell/screen';
import { say } from '../../words';

export const rigScreen: Screen = {
  id: 'rig',
  title: 'Rig',
  icon: IconBone,
  count: (p) => p.rig.bones.length,
  wants: (p) => {
    const loose = p.rig.bones.length > 0 ? looseParts(p).length : 0;
    return loose > 0 ? say('rig.partsLoose', { n: loose }) : null;
  },
  benchSize: 25,
  help: {
    title: 'How Rig goes',
    steps: [
      'Click a joint in the view or a bone on the left.',
      'Drag a ring to turn it; what hangs on it follows. Shift turns by single degrees.',
      'J shows arrows that move the joint while the cubes stay; dragged by its dot it snaps to corners, edges and faces.',
      'Drag a bone onto another in the list to hang it there.',
    ],
    lesson: {
      title: 'Bend her',
      text: 'Click a white joint, then drag one of the coloured rings around it. Everything that hangs on the bone comes along.',
    },
  },
  pieces: async () => (await import('./pieces')).pieces,
};
