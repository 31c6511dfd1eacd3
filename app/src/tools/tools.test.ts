import { NO_MIRROR } from '@sphalerite/core/sculpt';
import type { Vec3 } from '@sphalerite/core/math';
import { VoxelGrid, rayWalk } from '@sphalerite/core/voxel';
import { describe, expect, it } from 'vitest';
import { BoxTool } from './box-tool';
import { READY_CARDS } from './cards';
import { ExtrudeTool } from './extrude-tool';
import { PointTool } from './point-tool';
import type { Pick, Tool, ToolCard, ToolContext, ToolEvent, ToolOutput } from './tool';

/** A slab of 8×1×8 in a volume of 8³, looked at straight from above and from the front. */
const slab = VoxelGrid.empty({ min: [0, 0, 0], size: [8, 8, 8] }).edit((d) => d.fillBox({ min: [0, 0, 0], size: [8, 1, 8] }, 3));
const ctx = (card: Partial<ToolCard>, invert = false): ToolContext => ({ card: { ...READY_CARDS[0]!, ...card }, seen: slab, value: 5, mirror: NO_MIRROR, invert });
const event = (type: 'move' | 'down' | 'up', origin: Vec3, dir: Vec3): ToolEvent => {
  const hit = rayWalk(slab, origin, dir);
  const pick: Pick | null = hit ? { cell: hit.cell, normal: hit.normal, floor: false } : null;
  return { type, ray: { origin, dir }, pick };
};
const above = (type: 'move' | 'down' | 'up', x: number, z: number): ToolEvent => event(type, [x + 0.5, 20, z + 0.5], [0, -1, 0]);
const feed = (tool: Tool, c: ToolContext, events: ToolEvent[]): ToolOutput => events.map((e) => tool.handle(e, c)).at(-1)!;

describe('PointTool', () => {
  it('hover shows the cell in front of the face for Add and the cube itself for Paint', () => {
    expect(new PointTool().handle(above('move', 2, 3), ctx({ verb: 'add' })).cells).toEqual([{ min: [2, 1, 3], size: [1, 1, 1] }]);
    expect(new PointTool().handle(above('move', 2, 3), ctx({ verb: 'paint' })).cells).toEqual([{ min: [2, 0, 3], size: [1, 1, 1] }]);
  });
  it('a trail is one change; crossing a cell twice counts it once', () => {
    const out = feed(new PointTool(), ctx({ verb: 'add' }), [above('down', 1, 1), above('move', 2, 1), above('move', 1, 1), above('up', 1, 1)]);
    expect(out.commit).toMatchObject({ kind: 'stroke', stroke: { verb: 'add', value: 5, boxes: [{ min: [1, 1, 1] }, { min: [2, 1, 1] }] } });
    expect(out.active).toBe(false);
  });
  it('the held key turns Add into Erase; Escape leaves nothing behind', () => {
    const tool = new PointTool();
    expect(tool.handle(above('down', 1, 1), ctx({ verb: 'add' }, true)).preview).toMatchObject({ stroke: { verb: 'erase', boxes: [{ min: [1, 0, 1] }] } });
    expect(tool.handle({ type: 'cancel' }, ctx({})).preview).toBeNull();
    expect(tool.handle(above('up', 1, 1), ctx({})).commit).toBeNull();
  });
});

describe('BoxTool', () => {
  // From the front the pointer's height shows how far along Y it points.
  const front = (type: 'move' | 'down' | 'up', y: number): ToolEvent => event(type, [4.5, y, 40], [0, 0, -1]);
  it('footprint by drag, height by moving, set by a click', () => {
    const tool = new BoxTool();
    const c = ctx({ verb: 'add' });
    expect(feed(tool, c, [above('down', 1, 2), above('move', 4, 3)]).measure).toEqual({ size: [4, 1, 2], count: 8 });
    tool.handle({ ...above('up', 4, 3), ray: { origin: [4.5, 1.5, 40], dir: [0, 0, -1] } } as ToolEvent, c);
    expect(tool.handle(front('move', 3.5), c)).toMatchObject({ measure: { size: [4, 3, 2], count: 24 }, asks: 'move for the height, click to set it' });
    expect(tool.handle(front('down', 3.5), c).commit).toMatchObject({ stroke: { boxes: [{ min: [1, 1, 2], size: [4, 3, 2] }] } });
  });
  it('Erase grows into the body', () => {
    const tool = new BoxTool();
    const c = ctx({ verb: 'erase' });
    feed(tool, c, [above('down', 1, 2), above('move', 2, 2), { ...above('up', 2, 2), ray: { origin: [4.5, 0.5, 40], dir: [0, 0, -1] } } as ToolEvent]);
    expect(tool.handle(front('move', -1.5), c).cells[0]).toEqual({ min: [1, -2, 2], size: [2, 3, 1] });
  });
});

describe('ExtrudeTool', () => {
  it('counts layers and cubes of the whole face while pulling, in both directions', () => {
    const tool = new ExtrudeTool();
    const c = ctx({ reach: 'extrude' });
    const pull = (type: 'down' | 'move' | 'up', y: number): ToolEvent => ({ type, ray: { origin: [4.5, y, 40], dir: [0, 0, -1] }, pick: { cell: [4, 0, 4], normal: [0, 1, 0], floor: false } });
    expect(tool.handle(pull('down', 0.5), c)).toMatchObject({ face: { cell: [4, 0, 4] }, preview: null });
    expect(tool.handle(pull('move', 2.6), c).measure).toEqual({ size: [0, 2, 0], count: 128 });
    expect(tool.handle(pull('move', -0.6), c).measure).toEqual({ size: [0, -1, 0], count: 64 });
    expect(tool.handle(pull('up', 3.5), c).commit).toMatchObject({ extrusion: { layers: 3, value: null } });
  });
});
