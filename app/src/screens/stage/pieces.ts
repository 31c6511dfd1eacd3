import { later } from '../../components/later';
import type { ScreenPieces } from '../../shell/screen';
import { stageControl } from './control';
import StageBench from './StageBench.vue';
import StageOver from './StageOver.vue';

// A first visit waits for the scene: the sides come once it is seen.
export const pieces: ScreenPieces = {
  Tray: later(() => import('./SceneTray.vue')),
  Properties: later(() => import('./StageProperties.vue')),
  Bench: StageBench,
  Over: StageOver,
  control: stageControl,
};
