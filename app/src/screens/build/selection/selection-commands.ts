import { IconCopy, IconFlipHorizontal, IconRepeat, IconRotate2, IconSelectAll, IconTrash } from '@tabler/icons-vue';
import { AXES, type Axis, type Vec3, placedExtent } from '@sphalerite/core/math';
import { CellSet } from '@sphalerite/core/voxel';
import type { Command } from '../../../stores/commands';
import { useView } from '../../../stores/view';
import { useBuild } from '../build-state';
import { usePartMatrix } from '../picking';
import { useClipboard } from './clipboard';
import { useSelection } from './selection-state';
import { type Need, need } from '../../../stores/needs';

const AXIS = ['X', 'Y', 'Z'] as const;
const TURN_KEYS = ['<', ',', 'Alt+,'] as const;
const BACK_KEYS = ['>', '.', 'Alt+.'] as const;

/** A command for selected cells; enabled while there are some unless it says otherwise. */
const piece = (
  id: string,
  title: string,
  run: () => unknown,
  keys?: string[],
  icon?: Command['icon'],
  enabled: Need = need(() => useSelection().active, 'select cubes first'),
): Command => ({
  id: `select.${id}`,
  title,
  group: 'Selection',
  enabled,
  run,
  ...(keys ? { keys } : {}),
  ...(icon ? { icon } : {}),
});

/** Which cells are selected. */
function choosingCommands(): Command[] {
  const build = useBuild();
  const s = useSelection();
  const view = useView();
  const matrix = usePartMatrix();
  const whole = (): CellSet => CellSet.filled(build.seen!);
  const part = need(() => build.seen !== null, 'choose a part first');
  const chosen = need(() => s.selected !== null, 'select cubes first');
  return [
    piece('all', 'Select all cubes', () => s.take(whole(), 'new'), ['Ctrl+A'], IconSelectAll, part),
    piece(
      'none',
      'Select nothing',
      () => {
        s.settle();
        s.set(null);
      },
      ['Ctrl+Shift+A'],
    ),
    piece(
      'invert',
      'Select the others instead',
      () => s.set(s.selected ? whole().minus(s.selected) : whole()),
      ['Ctrl+I'],
      undefined,
      part,
    ),
    piece(
      'hue',
      'Select all of the swatch in hand',
      () => s.take(CellSet.ofValue(build.seen!, build.swatch?.byte ?? 0)),
      ['Ctrl+Shift+H'],
      undefined,
      part,
    ),
    piece(
      'made',
      'Select what was just made',
      () => s.made && s.take(s.made.set, 'new'),
      ['Shift+J'],
      undefined,
      need(() => s.madeHere, 'nothing was made in this part yet'),
    ),
    piece(
      'grow',
      'Grow the selection',
      () => s.selected && s.set(s.selected.grown(1, false, build.seen!.bounds).intersect(whole())),
      ['Plus', 'Shift+Plus', '='],
      undefined,
      chosen,
    ),
    piece(
      'shrink',
      'Shrink the selection',
      () => s.selected && s.set(s.selected.shrunk(1, false)),
      ['-'],
      undefined,
      chosen,
    ),
    piece(
      'frame',
      'Frame the selection',
      () => {
        const b = s.box;
        if (!b) return;
        const { lo, hi } = placedExtent(matrix.value, b);
        view.viewport?.frameBox(lo, hi);
      },
      ['Ctrl+Home'],
    ),
    piece('keepSize', 'Keep this size to compare with', () => (s.kept = s.box), ['Ctrl+M']),
  ];
}

/** Where selected cells go, and whether they stay: copies, colours, layers, parts, stamps. */
function takingCommands(): Command[] {
  const build = useBuild();
  const s = useSelection();
  const clipboard = useClipboard();
  return [
    piece('copy', 'Copy', () => s.copy(), ['Ctrl+C'], IconCopy),
    piece('cut', 'Cut', () => s.copy() && s.remove('Cut'), ['Ctrl+X']),
    piece(
      'paste',
      'Paste',
      () => s.paste(),
      ['Ctrl+V'],
      undefined,
      need(() => clipboard.piece !== null && build.seen !== null, 'copy cubes first'),
    ),
    piece('delete', 'Delete the selected cubes', () => s.remove(), ['Delete', 'Backspace'], IconTrash),
    piece(
      'recolour',
      'Recolour with the swatch in hand',
      () => s.recolour(build.swatch?.byte ?? 1),
      ['Shift+P'],
      undefined,
      need(() => s.selected !== null, 'select cubes first'),
    ),
    piece('toLayer', 'To a layer of its own', () => s.toLayer(), ['Ctrl+L']),
    piece('toPart', 'To a part of its own', () => s.toPart(), ['Ctrl+J']),
    piece(
      'toStamp',
      'Keep as a stamp',
      () => s.toStamp(),
      ['Ctrl+B'],
      undefined,
      need(() => s.active || s.madeHere, 'select cubes first, or make some'),
    ),
  ];
}

/** How selected cells are turned, repeated and fitted, and set down. */
function placingCommands(): Command[] {
  const s = useSelection();
  function defaultStep(): Vec3 {
    const b = (s.selected ?? s.made?.set ?? s.emptied)?.tight;
    return [(b?.size[0] ?? 3) + 1, 0, 0];
  }
  return [
    {
      ...piece('duplicate', 'Duplicate the selection', () => s.nudge([0, 0, 0], true), ['Ctrl+D']),
      before: ['part.duplicate'],
    },
    piece(
      'repeat',
      'Repeat in a row or ring',
      () => (s.repeat = { count: 3, step: defaultStep(), ring: null, hollows: s.madeWithHollows() }),
      ['R'],
      IconRepeat,
      need(() => s.selected !== null || s.madeHere, 'select cubes first, or make some'),
    ),
    ...AXES.flatMap((a: Axis): Command[] => [
      piece(`turn${AXIS[a]}`, `Turn a quarter about ${AXIS[a]}`, () => s.turn(a, 1), [TURN_KEYS[a]], IconRotate2),
      piece(`back${AXIS[a]}`, `Turn a quarter back about ${AXIS[a]}`, () => s.turn(a, 3), [BACK_KEYS[a]]),
      piece(`flip${AXIS[a]}`, `Flip along ${AXIS[a]}`, () => s.flip(a), [`Alt+Shift+${AXIS[a]}`], IconFlipHorizontal),
    ]),
    piece(
      'makeAlike',
      'Make as large as the kept one',
      () => s.makeAlike(),
      ['Ctrl+Shift+M'],
      undefined,
      need(() => s.active && s.kept !== null, 'select cubes, and keep a size to compare with first'),
    ),
    {
      ...piece(
        'set',
        'Set down what floats',
        () => (s.repeat ? s.setRepeat() : s.settle()),
        ['Enter'],
        undefined,
        need(() => s.floating !== null || s.repeat !== null, 'nothing floats'),
      ),
      before: ['tool.use'],
    },
  ];
}

/** Everything that is done with selected cells. */
export const selectionCommands = (): Command[] => [...choosingCommands(), ...takingCommands(), ...placingCommands()];
