import type { ScreenModule } from '../../shell/screen';
import BonesTray from './BonesTray.vue';
import BoneProperties from './BoneProperties.vue';
import RigBench from './RigBench.vue';
import { rigControl } from './control';

export const screen: ScreenModule = {
  Tray: BonesTray,
  Properties: BoneProperties,
  Bench: RigBench,
  benchSize: 25,
  control: rigControl,
  guide: {
    title: 'How Rig goes',
    steps: [
      'Click a joint in the view or a bone on the left.',
      'Drag a ring to turn it; what hangs on it follows. Shift turns by single degrees.',
      'J shows arrows that move the joint while the cubes stay; dragged by its dot it snaps to corners, edges and faces.',
      'Drag a bone onto another in the list to hang it there.',
    ],
  },
};
