import { describe, expect, it } from 'vitest';
import { ROOM, doorFor, groundGrid, roomBox, roomGrid } from './room';

describe('a room', () => {
  const room = { ...ROOM, size: [10, 8, 6] as const, wall: 2, floor: 1, wallByte: 3, floorByte: 4, open: [] };
  it('has walls on all sides but those that are open, counted by hand', () => {
    const closed = roomGrid(room);
    expect(closed.bounds).toEqual({ min: [-7, 0, -5], size: [14, 9, 10] });
    // A block of 14 × 9 × 10 with a hole of 10 × 8 × 6.
    expect(closed.count).toBe(14 * 9 * 10 - 10 * 8 * 6);
    const open = roomGrid({ ...room, open: ['front', 'right'] });
    expect(roomBox({ ...room, open: ['front', 'right'] })).toEqual({ min: [-7, 0, -5], size: [12, 9, 8] });
    expect(open.count).toBe(12 * 8 + 8 * (12 * 8 - 10 * 6));
    expect([open.get(-7, 0, -5), open.get(-7, 1, -5), open.get(0, 1, 0)]).toEqual([4, 3, 0]);
    const roofed = roomGrid({ ...room, ceiling: 3, floor: 0 });
    expect(roofed.count).toBe(14 * 11 * 10 - 10 * 8 * 6);
  });
  it('has doors through the wall and no further, in any of the walls', () => {
    const door = { width: 4, height: 5, sill: 0, shift: 1 };
    for (const side of ['left', 'right', 'back', 'front'] as const) {
      const g = roomGrid({ ...room, doors: [{ side, ...door }] });
      expect(roomGrid(room).count - g.count).toBe(2 * 4 * 5);
      expect(
        roomGrid({ ...room, open: [side], doors: [{ side, ...door }] }).equals(roomGrid({ ...room, open: [side] })),
      ).toBe(true);
    }
    const back = roomGrid({ ...room, doors: [{ side: 'back', ...door }] });
    expect([back.get(-1, 1, -4), back.get(2, 5, -5), back.get(3, 1, -4), back.get(-1, 0, -4)]).toEqual([0, 0, 3, 4]);
    // Wider and higher than the wall, it is the wall.
    const gate = roomGrid({ ...room, doors: [{ side: 'back', width: 99, height: 99, sill: 2, shift: 9 }] });
    expect(roomGrid(room).count - gate.count).toBe(2 * 10 * 6);
    expect(doorFor('back', 0.05)).toMatchObject({ width: 18, height: 41 });
  });
});

it('ground lies in layers below 0', () => {
  const g = groundGrid(5, 4, [
    { byte: 1, thick: 1 },
    { byte: 2, thick: 3 },
  ]);
  expect([g.bounds, g.count]).toEqual([{ min: [-2, -4, -2], size: [5, 4, 4] }, 5 * 4 * 4]);
  expect([-1, -2, -4].map((y) => g.get(0, y, 0))).toEqual([1, 2, 2]);
});
