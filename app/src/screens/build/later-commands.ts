import type { Command } from '../../stores/commands';
import { colourCommands } from './colours/colour-commands';
import { pivotCommands } from './pivot/pivot-commands';
import { tidyCommands } from './tidy-commands';
import type { useTints } from './tints';

/** Commands of Build that nobody needs before the first picture stands. */
export const laterCommands = (tints: ReturnType<typeof useTints>): Command[] => [
  ...tidyCommands(tints),
  ...pivotCommands(),
  ...colourCommands(),
];
