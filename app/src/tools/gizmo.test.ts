import { type Vec3, add, sub } from '@sphalerite/core/math';
import { describe, expect, it } from 'vitest';
import { GizmoDrag, type GizmoFrame, type GizmoSteps, type Grip, WORLD_AXES, amountText, shiftOf } from './gizmo';

const EYE: Vec3 = [30, 40, 50];
/** A ray from the eye through a point. */
const through = (p: Vec3) => ({ origin: EYE, dir: sub(p, EYE) });
const frame: GizmoFrame = { at: [2, 3, 4], axes: WORLD_AXES, modes: ['move', 'turn'] };
const HALVES: GizmoSteps = {
  move: [0.5, 0.5, 0.5],
  unit: [1, 1, 1],
  turn: 5,
  fineTurn: 1,
  scale: 0.05,
  fineScale: 0.01,
};
const drag = (grip: Grip, from: Vec3, steps = HALVES): GizmoDrag => new GizmoDrag(frame, grip, through(from), steps);

describe('the gizmo', () => {
  it('moves along one axis, in steps, whatever else the hand does', () => {
    const d = drag({ kind: 'axis', axis: 0 }, [8, 3, 4]);
    expect(d.idle).toBe(true);
    d.follow(through([11.3, 3, 4]), false);
    expect(d.amount).toEqual({ kind: 'move', along: [3.5, 0, 0] });
    const free = drag({ kind: 'axis', axis: 1 }, [2, 9, 4], { ...HALVES, move: [0, 0, 0] });
    free.follow(through([2, 10.2345, 4]), false);
    expect(free.amount).toEqual({ kind: 'move', along: [0, 1.23, 0] });
    expect(shiftOf(frame, [1, 2, 3])).toEqual([1, 2, 3]);
  });
  it('moves in a plane by the square between two arrows, and back to where it began is nothing', () => {
    const d = drag({ kind: 'plane', axis: 1 }, [4, 3, 6]);
    d.follow(through([6.1, 3, 3.4]), false);
    expect(d.amount).toEqual({ kind: 'move', along: [2, 0, -2.5] });
    d.follow(through([4, 3, 6]), false);
    expect(d.idle).toBe(true);
  });
  it('turns by a ring in steps of five degrees, with a fine hand of one; more than a round counts on', () => {
    const at = (degrees: number): Vec3 => {
      const a = (degrees * Math.PI) / 180;
      return [2 + 6 * Math.cos(a), 3, 4 - 6 * Math.sin(a)];
    };
    const d = drag({ kind: 'ring', axis: 1 }, at(0));
    d.follow(through(at(43)), false);
    expect(d.amount).toEqual({ kind: 'turn', axis: 1, degrees: 45 });
    d.follow(through(at(43)), true);
    expect(d.amount).toEqual({ kind: 'turn', axis: 1, degrees: 43 });
    for (let a = 60; a <= 400; a += 20) d.follow(through(at(a)), false);
    expect(d.amount).toEqual({ kind: 'turn', axis: 1, degrees: 400 });
  });
  it('says nothing where an axis or a ring is seen end on', () => {
    const along = { origin: [2, 3, 90] as Vec3, dir: [0, 0, -1] as Vec3 };
    expect(drag({ kind: 'axis', axis: 2 }, [2, 3, 9]).follow(along, false)).toBe(false);
    expect(drag({ kind: 'ring', axis: 0 }, [2, 3, 9]).follow(along, false)).toBe(false);
  });
  it('goes along other axes when they are switched, the last one staying on; a ring turns about the one that is asked for', () => {
    const d = drag({ kind: 'axis', axis: 0 }, [8, 3, 4]);
    d.follow(through([11.3, 3, 4]), false);
    d.toggle(2);
    expect(d.live).toEqual([true, false, true]);
    // In the plane of both from where the hand went down.
    d.follow(through([10, 3, 9]), false);
    expect(d.amount).toEqual({ kind: 'move', along: [2, 0, 5] });
    d.toggle(0);
    d.toggle(2);
    expect(d.live).toEqual([false, false, true]);
    expect(d.amount).toEqual({ kind: 'move', along: [0, 0, 5] });
    // Free: in the plane that faced the eye, so no farther from it.
    d.toggle(0);
    d.toggle(1);
    const eyeward = sub([8, 3, 4], EYE);
    d.follow(through(add([8, 3, 4], [4, 0, (-4 * eyeward[0]) / eyeward[2]])), false);
    expect(d.amount).toEqual({ kind: 'move', along: [4, 0, -2] });
    const ring = drag({ kind: 'ring', axis: 1 }, [8, 3, 4]);
    ring.toggle(2);
    for (const key of ['3', '0']) ring.type(key);
    expect(ring.amount).toEqual({ kind: 'turn', axis: 2, degrees: 30 });
  });
  it('scales by how much farther out the hand is, one axis or all alike, never to nothing; per cent are typed', () => {
    const d = drag({ kind: 'scale', axis: 0 }, [8, 3, 4]);
    d.follow(through([11.1, 3, 4]), false);
    expect(d.amount).toEqual({ kind: 'scale', by: [1.5, 1, 1] });
    d.follow(through([11.1, 3, 4]), true);
    expect(amountText(d.amount)).toBe('X 152 %, Y 100 %, Z 100 %');
    d.follow(through([-20, 3, 4]), false);
    expect(d.amount).toEqual({ kind: 'scale', by: [0.01, 1, 1] });
    const even = new GizmoDrag({ ...frame, even: true }, { kind: 'scale', axis: 1 }, through([2, 9, 4]), HALVES);
    even.follow(through([2, 6, 4]), false);
    expect(even.amount).toEqual({ kind: 'scale', by: [0.5, 0.5, 0.5] });
    for (const key of ['1', '2', '0']) even.type(key);
    even.toggle(0);
    expect(amountText(even.amount)).toBe('120 %');
  });
  it('takes typed figures in units before what the pointer says, and gives them up again', () => {
    const d = drag({ kind: 'axis', axis: 0 }, [8, 3, 4], { ...HALVES, move: [2, 2, 2], unit: [2, 2, 2] });
    for (const key of ['1', '2', '-']) expect(d.type(key)).toBe(true);
    expect(d.type('q')).toBe(false);
    d.follow(through([50, 3, 4]), false);
    expect(d.amount).toEqual({ kind: 'move', along: [-24, 0, 0] });
    expect(amountText(d.amount, [2, 2, 2])).toBe('X -12');
    for (let i = 0; i < 3; i++) d.type('Backspace');
    d.follow(through([10, 3, 4]), false);
    expect(amountText(d.amount, [2, 2, 2])).toBe('X +1');
    const ring = drag({ kind: 'ring', axis: 2 }, [8, 3, 4]);
    for (const key of ['2', '2', '.', '5']) ring.type(key);
    expect(amountText(ring.amount)).toBe('Z 22.5°');
  });
});
