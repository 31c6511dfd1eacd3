import type { Command } from '../../stores/commands';
import { colourCommands } from './colours/colour-commands';
import { partCommands } from './part-commands';
import { pivotCommands } from './pivot/pivot-commands';
import { tidyCommands } from './tidy-commands';
import type { useTints } from './tints';

/** Commands of Build that nobody needs before the first picture stands. */
export const laterCommands = (tints: ReturnType<typeof useTints>): Command[] => [
  ...partCommands(),
  ...tidyCommands(tints),
  ...pivotCommands(),
  ...colourCommands(),
];
