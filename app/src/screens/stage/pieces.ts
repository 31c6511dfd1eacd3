import type { ScreenPieces } from '../../shell/screen';
import { stageControl } from './control';
import PlacementProperties from './PlacementProperties.vue';
import SceneTray from './SceneTray.vue';
import StageBench from './StageBench.vue';
import StageOver from './StageOver.vue';

export const pieces: ScreenPieces = {
  Tray: SceneTray,
  Properties: PlacementProperties,
  Bench: StageBench,
  Over: StageOver,
  control: stageControl,
};
