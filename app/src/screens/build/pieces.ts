import { later } from '../../components/later';
import type { ScreenPieces } from '../../shell/screen';
import BuildBench from './BuildBench.vue';
import { buildControl } from './control';

// Build is what a first visit waits for: its sides come once the cubes are seen.
export const pieces: ScreenPieces = {
  Tray: later(() => import('./PartsTray.vue')),
  Properties: later(() => import('./colours/PropertyTabs.vue')),
  Bench: BuildBench,
  control: buildControl,
};
