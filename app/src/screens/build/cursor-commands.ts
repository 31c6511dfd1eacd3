import { IconKeyboard } from '@tabler/icons-vue';
import { type Vec3, boxEnd, mapVec } from '@sphalerite/core/math';
import type { Command } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { useBuild } from './build-state';
import { need, needsPart } from '../../stores/needs';

/** Cells of a long step, with Shift. */
const FAR = 8;

/**
 * Moves and uses the cell cursor without a pointer; arrows follow the view, so that up is away from the eye.
 * Without a cursor or a stroke that waits to be set, Enter presses buttons as everywhere.
 */
export interface CursorUse {
  act(cell: Vec3): void;
  commit(): void;
  /** Whether a shape is under way that Enter would set. */
  waiting(): boolean;
  nudge(by: Vec3): void;
  /** Whether the arrows move a waiting shape or the selection. */
  movable(): boolean;
}

export function cursorCommands({ act, commit, waiting, nudge, movable }: CursorUse): Command[] {
  const session = useSession();
  const build = useBuild();
  const view = useView();

  function step(right: number, away: number, up: number): void {
    const yaw = view.viewport?.camera.yaw ?? 0;
    // The nearest quarter turn of the camera decides which axis is "right" and which is "away".
    const quarter = ((Math.round(yaw / (Math.PI / 2)) % 4) + 4) % 4;
    const [rx, rz] = [
      [1, 0],
      [0, -1],
      [-1, 0],
      [0, 1],
    ][quarter]! as [number, number];
    const by: Vec3 = [right * rx + away * rz, up, right * rz - away * rx];
    if (movable()) {
      nudge(by);
      return;
    }
    const c = build.cursor,
      b = session.part?.bounds;
    if (!c || !b) return;
    const moved: Vec3 = [c[0] + by[0], c[1] + by[1], c[2] + by[2]];
    const e = boxEnd(b);
    build.cursor = mapVec(moved, (v, i) => Math.max(b.min[i]!, Math.min(e[i]! - 1, v)));
  }
  const on = (): boolean => build.cursor !== null;
  const move = (id: string, title: string, keys: string, right: number, away: number, up: number): Command[] =>
    [1, FAR].map((n): Command => ({
      id: `cursor.${id}${n > 1 ? 'Far' : ''}`,
      title: n > 1 ? `${title} by ${FAR}` : title,
      group: 'Keyboard cursor',
      keys: [n > 1 ? `Shift+${keys}` : keys],
      enabled: need(() => on() || movable(), 'there is no keyboard cursor and nothing that floats'),
      run: () => step(right * n, away * n, up * n),
    }));
  return [
    {
      id: 'cursor.toggle',
      title: 'Keyboard cursor',
      group: 'Keyboard cursor',
      keys: ['K'],
      icon: IconKeyboard,
      on,
      enabled: needsPart,
      run: () => {
        if (build.cursor) {
          build.cursor = null;
          return;
        }
        const { min, size } = session.part!.bounds;
        build.cursor = [min[0] + (size[0] >> 1), min[1], min[2] + (size[2] >> 1)];
      },
    },
    ...move('right', 'Cursor right', 'Right', 1, 0, 0),
    ...move('left', 'Cursor left', 'Left', -1, 0, 0),
    ...move('away', 'Cursor away', 'Up', 0, 1, 0),
    ...move('near', 'Cursor nearer', 'Down', 0, -1, 0),
    ...move('up', 'Cursor up', 'PageUp', 0, 0, 1),
    ...move('down', 'Cursor down', 'PageDown', 0, 0, -1),
    {
      id: 'tool.use',
      title: 'Use the tool here',
      group: 'Keyboard cursor',
      keys: ['Enter'],
      enabled: need(() => on() || waiting(), 'there is no keyboard cursor and nothing that waits'),
      run: () => (build.cursor ? act(build.cursor) : commit()),
    },
  ];
}
