import { NO_SYMMETRY, shapeCells, strokeCells } from '@sphalerite/core/sculpt';
import { type Box, type Vec3, mapVec } from '@sphalerite/core/math';
import { type CellSet, VoxelGrid, rayWalk } from '@sphalerite/core/voxel';
import { describe, expect, it } from 'vitest';
import { READY_CARDS, type ToolCard, cardsSchema, makeCard } from './card';
import { makeTool } from './cards';
import { clingingTo } from './stamp-tool';
import type { Change, Pick, Tool, ToolContext, ToolEvent, ToolOutput } from './tool';

/** A slab of 8×1×8 in a volume of 8³, looked at straight from above and from the front. */
const slab = VoxelGrid.empty({ min: [0, 0, 0], size: [8, 8, 8] }).edit((d) =>
  d.fillBox({ min: [0, 0, 0], size: [8, 1, 8] }, 3),
);
const ctx = (card: Partial<ToolCard>, more: Partial<ToolContext> = {}): ToolContext => ({
  card: { ...READY_CARDS[0]!, ...card },
  seen: slab,
  limit: slab.bounds,
  value: 5,
  symmetry: NO_SYMMETRY,
  invert: false,
  square: null,
  stamp: null,
  ...more,
});
type Press = ToolEvent & { type: 'move' | 'down' | 'up' };
const event = (type: Press['type'], origin: Vec3, dir: Vec3): Press => {
  const hit = rayWalk(slab, origin, dir);
  const pick: Pick | null = hit ? { cell: hit.cell, normal: hit.normal, floor: false } : null;
  return { type, ray: { origin, dir }, pick };
};
const above = (type: Press['type'], x: number, z: number): Press => event(type, [x + 0.5, 20, z + 0.5], [0, -1, 0]);
// From the front the pointer's height shows how far along Y it points.
const front = (type: Press['type'], y: number): Press => event(type, [4.5, y, 40], [0, 0, -1]);
const feed = (tool: Tool, c: ToolContext, events: ToolEvent[]): ToolOutput =>
  events.map((e) => tool.handle(e, c)).at(-1)!;
/** The cells a change would cover. */
const cellsOf = (c: Change | null): CellSet =>
  strokeCells((c as Change & { kind: 'stroke' }).shapes, NO_SYMMETRY, { min: [-99, -99, -99], size: [200, 200, 200] });
const boxOf = (c: Change | null): Box | null => cellsOf(c).tight;

describe('points and brushes', () => {
  it('hover shows the cell in front of the face for Add and the cube itself for Paint', () => {
    const at = (verb: 'add' | 'paint') =>
      shapeCells(makeTool('point').handle(above('move', 2, 3), ctx({ verb, reach: 'point' })).shapes[0]!).tight!.min;
    expect(at('add')).toEqual([2, 1, 3]);
    expect(at('paint')).toEqual([2, 0, 3]);
  });
  it('a trail is one change; crossing a cell twice counts it once', () => {
    const out = feed(makeTool('point'), ctx({ reach: 'point' }), [
      above('down', 1, 1),
      above('move', 2, 1),
      above('move', 1, 1),
      above('up', 1, 1),
    ]);
    expect(cellsOf(out.commit).count).toBe(2);
    expect(out).toMatchObject({ active: false, commit: { kind: 'stroke', verb: 'add', value: 5 } });
  });
  it('the held key turns Add into Erase; Escape leaves nothing behind', () => {
    const tool = makeTool('point');
    expect(tool.handle(above('down', 1, 1), ctx({ reach: 'point' }, { invert: true })).preview).toMatchObject({
      verb: 'erase',
    });
    expect(tool.handle({ type: 'cancel' }, ctx({})).preview).toBeNull();
    expect(tool.handle(above('up', 1, 1), ctx({ reach: 'point' })).commit).toBeNull();
  });
  it('odd tips sit on the cube, even ones on its corner; a disc lies on the surface', () => {
    const dab = (card: Partial<ToolCard>) =>
      boxOf(makeTool('brush').handle(above('down', 3, 3), ctx({ reach: 'brush', ...card })).preview);
    expect(dab({ tip: 'ball', size: 3 })).toEqual({ min: [2, 0, 2], size: [3, 3, 3] });
    // Even ones lean towards the corner the pointer is at, and away from the surface, alike on opposite sides.
    expect(dab({ tip: 'cube', size: 4 })).toEqual({ min: [2, 0, 2], size: [4, 4, 4] });
    const even = (x: number, cell: Vec3, normal: Vec3, origin: Vec3) =>
      boxOf(
        makeTool('brush').handle(
          {
            type: 'down',
            ray: { origin, dir: mapVec(normal, (n) => -n) },
            pick: { cell, normal, floor: false },
          },
          ctx({ reach: 'brush', tip: 'cube', size: 4 }),
        ).preview,
      )!.min[x];
    expect([even(0, [3, 0, 3], [0, 1, 0], [3.2, 20, 3.8]), even(2, [3, 0, 3], [0, 1, 0], [3.2, 20, 3.8])]).toEqual([
      1, 2,
    ]);
    expect([even(0, [7, 0, 3], [1, 0, 0], [30, 0.5, 3.5]), even(0, [0, 0, 3], [-1, 0, 0], [-30, 0.5, 3.5])]).toEqual([
      7, -3,
    ]);
    expect(dab({ tip: 'disc', size: 5 })).toEqual({ min: [1, 1, 1], size: [5, 1, 5] });
  });
  it('a growing brush takes the colour of the cube under each dab', () => {
    const two = slab.edit((d) => d.fillBox({ min: [4, 0, 0], size: [4, 1, 8] }, 9));
    const out = feed(makeTool('point'), ctx({ reach: 'point', grow: true }, { seen: two }), [
      above('down', 3, 1),
      above('move', 4, 1),
      above('up', 4, 1),
    ]);
    expect((out.commit as Change & { kind: 'stroke' }).shapes.map((s) => s.value)).toEqual([3, 9]);
  });
});

describe('solids', () => {
  const drag = (
    tool: Tool,
    c: ToolContext,
    from: [number, number],
    to: [number, number],
    more: Partial<Press> = {},
  ): ToolOutput =>
    feed(tool, c, [
      { ...above('down', ...from), ...more },
      { ...above('move', ...to), ...more },
      { ...above('up', ...to), ...more, ray: { origin: [4.5, 1.5, 40], dir: [0, 0, -1] } },
    ]);
  it('footprint by drag, height by moving, set by a click', () => {
    const tool = makeTool('box'),
      c = ctx({});
    expect(feed(tool, c, [above('down', 1, 2), above('move', 4, 3)]).measure).toEqual({ size: [4, 1, 2], count: 8 });
    tool.handle({ ...above('up', 4, 3), ray: { origin: [4.5, 1.5, 40], dir: [0, 0, -1] } }, c);
    expect(tool.handle(front('move', 3.5), c)).toMatchObject({
      measure: { size: [4, 3, 2], count: 24 },
      asks: 'move for the height, click to set it',
    });
    expect(boxOf(tool.handle(front('down', 3.5), c).commit)).toEqual({ min: [1, 1, 2], size: [4, 3, 2] });
  });
  it('Erase grows into the body', () => {
    const tool = makeTool('box'),
      c = ctx({ verb: 'erase' });
    feed(tool, c, [
      above('down', 1, 2),
      above('move', 2, 2),
      { ...above('up', 2, 2), ray: { origin: [4.5, 0.5, 40], dir: [0, 0, -1] } },
    ]);
    expect(boxOf(tool.handle(front('move', -1.5), c).preview)).toEqual({ min: [1, -2, 2], size: [2, 3, 1] });
  });
  it('from the centre, with equal sides, and both at once without a second step', () => {
    expect(boxOf(drag(makeTool('box'), ctx({ centre: true }), [4, 4], [6, 5]).preview)).toEqual({
      min: [2, 1, 3],
      size: [5, 1, 3],
    });
    const ball = drag(makeTool('ellipsoid'), ctx({ reach: 'ellipsoid' }), [4, 4], [6, 5], { shift: true, ctrl: true });
    expect(boxOf(ball.commit)).toEqual({ min: [2, 1, 2], size: [5, 5, 5] });
    expect(boxOf(drag(makeTool('box'), ctx({ equal: true }), [1, 1], [3, 2]).commit)).toEqual({
      min: [1, 1, 1],
      size: [3, 3, 3],
    });
  });
  it('a waiting shape is nudged and takes numbers; then the pointer leaves its height alone', () => {
    const tool = makeTool('box'),
      c = ctx({});
    drag(tool, c, [1, 1], [2, 2]);
    expect(tool.handle({ type: 'nudge', by: [0, 2, 1] }, c).waiting).toEqual({ min: [1, 3, 2], size: [2, 1, 2] });
    tool.handle({ type: 'box', box: { min: [0, 2, 0], size: [3, 4, 5] } }, c);
    expect(tool.handle(front('move', 7.5), c).waiting!.size).toEqual([3, 4, 5]);
    expect(boxOf(tool.handle({ type: 'commit' }, c).commit)).toEqual({ min: [0, 2, 0], size: [3, 4, 5] });
    expect(
      boxOf(feed(tool, c, [{ type: 'box', box: { min: [1, 1, 1], size: [2, 2, 2] } }, { type: 'commit' }]).commit),
    ).toEqual({ min: [1, 1, 1], size: [2, 2, 2] });
  });
  it('a hollow dome stands open on what it was drawn on, whichever way that looks', () => {
    const tool = makeTool('cylinder'),
      c = ctx({ reach: 'cylinder', profile: 'dome', wall: 1 });
    const up = cellsOf(
      feed(tool, c, [{ type: 'box', box: { min: [0, 1, 0], size: [7, 4, 7] } }, { type: 'commit' }]).commit,
    );
    expect([up.has(3, 1, 3), up.has(3, 4, 3), up.has(0, 1, 3)]).toEqual([false, true, true]);
  });
  it('slice by slice, each click sets one and shows the next', () => {
    const tool = makeTool('cylinder'),
      c = ctx({ reach: 'cylinder', profile: 'cone', slices: true });
    tool.handle({ type: 'box', box: { min: [0, 1, 0], size: [5, 3, 5] } }, c);
    const first = tool.handle({ type: 'commit' }, c);
    expect([boxOf(first.commit)!.min[1], boxOf(first.preview)!.min[1], first.active]).toEqual([1, 2, true]);
    tool.handle({ type: 'commit' }, c);
    const last = tool.handle({ type: 'commit' }, c);
    expect([boxOf(last.commit)!.min[1], last.active]).toEqual([3, false]);
  });
  it('a selection in a square-on view takes everything behind it at once', () => {
    const out = drag(makeTool('box'), ctx({ verb: 'select' }, { square: 1 }), [1, 1], [2, 3]);
    expect(boxOf(out.commit)).toEqual({ min: [1, 0, 1], size: [2, 8, 3] });
  });
});

describe('lines', () => {
  it('go straight from press to release, or by steps', () => {
    const line = feed(makeTool('line'), ctx({ reach: 'line', size: 1 }), [
      above('down', 1, 1),
      above('move', 6, 4),
      above('up', 6, 4),
    ]);
    expect(cellsOf(line.commit).count).toBe(6);
    const steps = feed(makeTool('line'), ctx({ reach: 'line', path: 'steps', size: 1, run: 2 }), [
      above('down', 0, 1),
      above('move', 5, 1),
      above('up', 5, 1),
    ]);
    expect(boxOf(steps.commit)).toEqual({ min: [0, 1, 1], size: [6, 3, 1] });
  });
  it('a curve takes points until Enter', () => {
    const tool = makeTool('line'),
      c = ctx({ reach: 'line', path: 'curve', size: 1 });
    expect(
      feed(tool, c, [
        above('down', 0, 0),
        above('up', 0, 0),
        above('move', 3, 5),
        above('down', 3, 5),
        above('up', 3, 5),
        above('down', 7, 0),
        above('up', 7, 0),
      ]),
    ).toMatchObject({ active: true, commit: null });
    const done = tool.handle({ type: 'commit' }, c);
    for (const [x, z] of [
      [0, 0],
      [3, 5],
      [7, 0],
    ] as const)
      expect(cellsOf(done.commit).has(x, 1, z)).toBe(true);
  });
});

describe('Extrude', () => {
  it('counts layers and cubes of the whole face while pulling, in both directions', () => {
    const tool = makeTool('extrude'),
      c = ctx({ reach: 'extrude', grow: true });
    const pull = (type: Press['type'], y: number): ToolEvent => ({
      type,
      ray: { origin: [4.5, y, 40], dir: [0, 0, -1] },
      pick: { cell: [4, 0, 4], normal: [0, 1, 0], floor: false },
    });
    expect(tool.handle(pull('down', 0.5), c)).toMatchObject({ face: { cell: [4, 0, 4] }, preview: null });
    expect(tool.handle(pull('move', 2.6), c).measure).toEqual({ size: [0, 2, 0], count: 128 });
    expect(tool.handle(pull('move', -0.6), c).measure).toEqual({ size: [0, -1, 0], count: 64 });
    expect(tool.handle(pull('up', 3.5), c).commit).toMatchObject({ extrusion: { layers: 3, value: null } });
  });
});

describe('Fill, Stamp and Opening', () => {
  it('a fill asks for the region under the click', () => {
    const at = (card: Partial<ToolCard>) =>
      makeTool('fill').handle(above('down', 2, 2), ctx({ reach: 'fill', verb: 'paint', ...card })).commit;
    expect(at({ region: 'colour' })).toMatchObject({
      kind: 'region',
      verb: 'paint',
      query: { kind: 'colour', cell: [2, 0, 2], diagonals: false },
    });
    expect(at({ region: 'space' })).toMatchObject({ query: { kind: 'space', cell: [2, 1, 2] } });
  });
  it('a stamp clings: its foot on the ground, its back to a wall', () => {
    // An L of three cubes, its front towards +Z.
    const piece = VoxelGrid.empty({ min: [10, 10, 10], size: [2, 2, 1] }).edit((d) =>
      [
        [10, 10, 10],
        [11, 10, 10],
        [10, 11, 10],
      ].forEach((c) => d.set(c[0]!, c[1]!, c[2]!, 4)),
    );
    const down = makeTool('stamp').handle(above('down', 3, 3), ctx({ reach: 'stamp' }, { stamp: piece }))
      .commit as Change & { kind: 'stamp' };
    expect(down.grid.bounds).toEqual({ min: [2, 1, 3], size: [2, 2, 1] });
    expect(clingingTo(piece, { cell: [7, 4, 3], normal: [1, 0, 0], floor: false }, [8, 4, 3]).bounds).toEqual({
      min: [8, 3, 2],
      size: [1, 2, 2],
    });
    expect(clingingTo(piece, { cell: [0, 4, 3], normal: [-1, 0, 0], floor: false }, [-1, 4, 3]).bounds.min[0]).toBe(-1);
  });
  it('an opening waits after its drag, and a plain click repeats its size', () => {
    const wall = VoxelGrid.empty({ min: [0, 0, 0], size: [20, 20, 4] }).edit((d) =>
      d.fillBox({ min: [0, 0, 0], size: [20, 20, 2] }, 3),
    );
    const c = ctx({ reach: 'opening' }, { seen: wall, limit: wall.bounds });
    const on = (type: Press['type'], x: number, y: number): Press => ({
      type,
      ray: { origin: [x + 0.5, y + 0.5, 40], dir: [0, 0, -1] },
      pick: { cell: [x, y, 1], normal: [0, 0, 1], floor: false },
    });
    const tool = makeTool('opening');
    expect(feed(tool, c, [on('down', 2, 3), on('move', 6, 9), on('up', 6, 9)])).toMatchObject({
      waiting: { min: [2, 3, 1], size: [5, 7, 1] },
      commit: null,
    });
    expect(tool.handle({ type: 'commit' }, { ...c, card: { ...c.card, recess: 0 } }).commit).toMatchObject({
      opening: { recess: 0, frame: 5, filling: null },
    });
    expect(feed(tool, c, [on('down', 14, 10), on('up', 14, 10)]).waiting).toEqual({ min: [12, 7, 1], size: [5, 7, 1] });
  });
});

describe('a height that one looks straight along', () => {
  const c = ctx({ reach: 'box' });
  it('says so, and comes from wheel, keys or numbers; the pointer does not change it', () => {
    const tool = makeTool('box');
    const waits = feed(tool, c, [above('down', 1, 1), above('move', 3, 4), above('up', 3, 4)]);
    expect(waits).toMatchObject({ wheel: true, waiting: { min: [1, 1, 1], size: [3, 1, 4] } });
    expect(waits.asks).toContain('straight along the height');
    expect(tool.handle(above('move', 6, 6), c).waiting!.size).toEqual([3, 1, 4]);
    expect(
      feed(tool, c, [
        { type: 'height', by: 1 },
        { type: 'height', by: 2 },
      ]).waiting,
    ).toEqual({
      min: [1, 1, 1],
      size: [3, 4, 4],
    });
    expect(tool.handle({ type: 'nudge', by: [0, -1, 0] }, c).waiting!.size).toEqual([3, 3, 4]);
    // Below its footprint it grows the other way.
    expect(feed(tool, c, [{ type: 'height', by: -3 }]).waiting).toEqual({ min: [1, 0, 1], size: [3, 2, 4] });
    expect(tool.handle({ type: 'nudge', by: [1, 0, 0] }, c).waiting!.min).toEqual([2, 0, 1]);
  });
  it('from any other side the pointer gives it, and the wheel is for the camera', () => {
    const tool = makeTool('box');
    feed(tool, c, [above('down', 1, 1), above('move', 3, 4)]);
    const waits = tool.handle(front('up', 1.5), c);
    expect(waits.wheel).toBe(false);
    expect(tool.handle(front('move', 4.5), c).waiting!.size).toEqual([3, 4, 4]);
  });
});

describe('cards', () => {
  it('stored ones get options they did not know; nonsense is left out', () => {
    const mine = { name: 'Mine', verb: 'add', reach: 'box' };
    const garbled = { ...mine, size: 'large', tip: 'spoon', wall: 3 };
    expect(cardsSchema.parse([mine, garbled, { ...mine, verb: 'melt' }, null, 7])).toEqual([
      makeCard('Mine', 'add', 'box'),
      makeCard('Mine', 'add', 'box', { wall: 3 }),
    ]);
    expect(READY_CARDS.map((c) => cardsSchema.parse([{ ...c }])[0])).toEqual(READY_CARDS);
    expect(cardsSchema.parse('no list')).toEqual([]);
    // What was only open or not is open at its base.
    expect(cardsSchema.parse([{ ...mine, open: true }])[0]!.ends).toBe('base');
  });
});
