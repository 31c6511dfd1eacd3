import type { Command } from '../../stores/commands';
import { actAtCursor } from './act-at-cursor';
import { useBuild } from './build-state';
import type { BuildParts } from './build-parts';
import { colourCommands } from './colours/colour-commands';
import { cursorCommands } from './cursor-commands';
import { partCommands } from './part-commands';
import { pivotCommands } from './pivot/pivot-commands';
import { useSelection } from './selection/selection-state';
import { tidyCommands } from './tidy-commands';

/** The keyboard cursor, whose arrows also move what waits or floats. */
function byKeys({ strokes, hand }: BuildParts): Command[] {
  const build = useBuild();
  const selection = useSelection();
  return cursorCommands({
    act: (cell) => actAtCursor(cell, hand, strokes),
    commit: () => strokes.feed({ type: 'commit' }),
    waiting: () => strokes.output.value.active,
    nudge: (by) => (strokes.output.value.active ? void strokes.nudge(by) : selection.nudge(by)),
    movable: () => strokes.output.value.waiting !== null || (selection.active && !build.cursor),
  });
}

/** Commands of Build that nobody needs before the first picture stands. */
export const laterCommands = (parts: BuildParts): Command[] => [
  ...byKeys(parts),
  ...partCommands(),
  ...tidyCommands(parts.tints),
  ...pivotCommands(),
  ...colourCommands(),
];
