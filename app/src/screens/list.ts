import type { Screen } from '../shell/screen';
import { animateScreen } from './animate';
import { bringScreen } from './bring';
import { buildScreen } from './build';
import { lightScreen } from './light';
import { rigScreen } from './rig';
import { shipScreen } from './ship';
import { stageScreen } from './stage';

/**
 * The screens of the bench, in the order of the work: the job line, the router, the keys Alt+1 and on, and the first steps follow it.
 * Those beside the line come last.
 */
export const SCREENS: readonly Screen[] = [
  buildScreen,
  rigScreen,
  animateScreen,
  stageScreen,
  lightScreen,
  shipScreen,
  bringScreen,
];
