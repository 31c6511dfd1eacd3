import { describe, expect, it } from 'vitest';
import { quatFromAxisAngle, rotate } from '../math';
import { type Clip, EMPTY_RIG, PLAIN_BONE, PLAIN_CLIP, type Rig } from '../model';
import {
  clipTime,
  closedLoop,
  countKeys,
  emptyLane,
  frameOf,
  keyTimes,
  loopGaps,
  nearestFrame,
  removeKeys,
  sampleClip,
  sampleKeys,
  setKey,
  shiftKeys,
} from '.';

const clip: Clip = { id: 'c', name: 'Nod', length: 1200, fps: 24, loop: true, lanes: [], ...PLAIN_CLIP };
const rig: Rig = {
  ...EMPTY_RIG,
  bones: [
    {
      id: 'b',
      name: 'Head',
      side: 'centre',
      parent: null,
      rest: { t: [0, 5, 0], q: quatFromAxisAngle([0, 1, 0], 0.5), s: [1, 1, 1] },
      ...PLAIN_BONE,
    },
  ],
};
const number = (a: number, b: number, t: number): number => a + (b - a) * t;

describe('sampling', () => {
  it('holds, runs straight or eases, and holds outside', () => {
    const keys = (ease: 'step' | 'linear' | 'ease') => [
      { time: 100, ease, value: 0 },
      { time: 300, ease, value: 10 },
    ];
    expect([0, 100, 150, 300, 999].map((t) => sampleKeys(keys('linear'), t, number))).toEqual([0, 0, 2.5, 10, 10]);
    expect([150, 299].map((t) => sampleKeys(keys('step'), t, number))).toEqual([0, 0]);
    expect(sampleKeys(keys('ease'), 150, number)).toBeCloseTo(10 * 0.25 ** 2 * (3 - 0.5), 12);
    expect(sampleKeys([], 5, number)).toBeNull();
  });
  it('keys are offsets from rest: q = rest · Δ, t = rest + Δ', () => {
    let c = setKey(clip, 'b', 'turn', { time: 0, ease: 'ease', value: quatFromAxisAngle([1, 0, 0], 1) });
    c = setKey(c, 'b', 'move', { time: 0, ease: 'ease', value: [0, -1, 2] });
    const p = sampleClip(c, rig, 0).get('b')!;
    expect(p.t).toEqual([0, 4, 2]);
    const byHand = rotate(quatFromAxisAngle([0, 1, 0], 0.5), rotate(quatFromAxisAngle([1, 0, 0], 1), [1, 2, 3]));
    rotate(p.q, [1, 2, 3]).forEach((v, i) => expect(v).toBeCloseTo(byHand[i]!, 9));
  });
  it('a hinge counts whole turns, after the turn of the bone; a loop closes by whole turns', () => {
    const quarter = quatFromAxisAngle([0, 1, 0], Math.PI / 2);
    let c = setKey(clip, 'b', 'turn', { time: 0, ease: 'linear', value: quarter });
    c = setKey(c, 'b', 'hinge', { time: 0, ease: 'linear', value: [0, 0, 0] });
    c = setKey(c, 'b', 'hinge', { time: 1000, ease: 'linear', value: [19.8 * Math.PI, 0, 0] });
    for (const time of [0, 130, 505, 1000]) {
      const angle = (19.8 * Math.PI * time) / 1000;
      // A wheel that is steered: it spins about its own axle, wherever that points.
      const byHand = rotate(
        rig.bones[0]!.rest.q,
        rotate(quarter, rotate(quatFromAxisAngle([1, 0, 0], angle), [1, 2, 3])),
      );
      rotate(sampleClip(c, rig, time).get('b')!.q, [1, 2, 3]).forEach((v, i) => expect(v).toBeCloseTo(byHand[i]!, 9));
    }
    const closed = closedLoop(c);
    expect(closed.lanes[0]!.hinge.map((k) => k.time)).toEqual([0, 1000, 1200]);
    expect(closed.lanes[0]!.hinge[2]!.value[0]).toBeCloseTo(20 * Math.PI, 9);
    expect(loopGaps(closed, rig)).toEqual([]);
  });
  it('loops come round, others stop at their end; times snap to frames', () => {
    expect([clipTime(clip, 1300), clipTime(clip, -100), clipTime({ ...clip, loop: false }, 1300)]).toEqual([
      100, 1100, 1200,
    ]);
    expect([nearestFrame(clip, 74), nearestFrame(clip, 76), frameOf(clip, 600)]).toEqual([50, 100, 12]);
  });
});

describe('keys', () => {
  const turn = (time: number) => ({ time, ease: 'ease' as const, value: [0, 0, 0, 1] as const });
  const three = [0, 300, 600].reduce((c, t) => setKey(c, 'b', 'turn', turn(t)), clip);
  it('stand in order, one at a time; empty lanes go', () => {
    const out = setKey(setKey(three, 'b', 'turn', turn(450)), 'b', 'turn', { ...turn(300), ease: 'step' });
    expect(out.lanes[0]!.turn.map((k) => [k.time, k.ease])).toEqual([
      [0, 'ease'],
      [300, 'step'],
      [450, 'ease'],
      [600, 'ease'],
    ]);
    const none = removeKeys(
      out,
      [0, 300, 450, 600].map((time) => ({ bone: 'b', channel: 'turn' as const, time })),
    );
    expect(none.lanes).toEqual([]);
    expect(countKeys(out)).toBe(4);
  });
  it('shift together, held inside the clip, over those in the way', () => {
    const refs = [
      { bone: 'b', channel: 'turn' as const, time: 0 },
      { bone: 'b', channel: 'turn' as const, time: 300 },
    ];
    expect(shiftKeys(three, refs, 300).lanes[0]!.turn.map((k) => k.time)).toEqual([300, 600]);
    expect(shiftKeys(three, refs, 9999).lanes[0]!.turn.map((k) => k.time)).toEqual([600, 900, 1200]);
    expect(shiftKeys(three, refs, -50)).toBe(three);
  });
  it('are gathered by time for drawing', () => {
    expect(
      keyTimes({ ...emptyLane('b'), turn: [turn(0)], move: [{ time: 0, ease: 'linear', value: [0, 0, 0] }] }),
    ).toEqual([{ time: 0, channels: ['move', 'turn'], ease: 'linear' }]);
  });
});
