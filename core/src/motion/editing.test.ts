import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Quat, type Vec3, quatFromAxisAngle, rotate, seededRandom } from '../math';
import {
  type Bone,
  type Clip,
  EMPTY_RIG,
  PLAIN_BONE,
  PLAIN_CLIP,
  type Project,
  type Rig,
  type Side,
  idsFrom,
  makeProject,
} from '../model';
import { worldMatrices } from '../rig';
import {
  type KeyRef,
  allKeys,
  blendPoses,
  closedLoop,
  copyKeys,
  countKeys,
  withAlternatesAt,
  keysOf,
  loopGaps,
  mirroredKeys,
  pasteKeys,
  removeKeys,
  removeSwaps,
  retarget,
  rippleClip,
  sampleClip,
  sampleLane,
  betweenFrames,
  retimeClip,
  retimeKeys,
  retimed,
  secondHalfMirrored,
  setKey,
  setSwap,
  shiftKeys,
  wornAt,
} from '.';

const bone = (id: string, name: string, side: Side, parent: string | null, t: Vec3, q: Quat = [0, 0, 0, 1]): Bone => ({
  ...PLAIN_BONE,
  id,
  name,
  side,
  parent,
  rest: { t, q, s: [1, 1, 1] },
});
const rig: Rig = {
  ...EMPTY_RIG,
  bones: [
    bone('h', 'Hips', 'centre', null, [0, 10, 0]),
    bone('l', 'Leg', 'left', 'h', [2, 0, 0]),
    bone('r', 'Leg', 'right', 'h', [-2, 0, 0]),
  ],
};
const empty: Clip = { ...PLAIN_CLIP, id: 'c', name: 'Walk', length: 1200, fps: 24, loop: true, lanes: [] };
const turn = (time: number, angle: number, axis: Vec3 = [1, 0, 0]) => ({
  time,
  ease: 'ease' as const,
  value: quatFromAxisAngle(axis, angle),
});

/** A clip of many keys on whole frames. */
function busy(seed: number, lanes = 20, each = 100): Clip {
  const random = seededRandom(seed);
  return {
    ...empty,
    length: 50 * (each + 20),
    lanes: Array.from({ length: lanes }, (_, i) => ({
      bone: `b${i}`,
      move: [],
      hinge: [],
      scale: [],
      turn: Array.from({ length: each }, (_k, k) => turn(50 * k, random() * 2)),
    })),
  };
}
const times = (c: Clip): number[][] => c.lanes.map((l) => l.turn.map((k) => k.time));

describe('many keys at once', () => {
  const clip = busy(1);
  it('2,000 keys scaled about a moment stand where each alone would; back again by undoing the figures', () => {
    const refs = allKeys(clip),
      out = retimeKeys(clip, refs, { about: 1000, by: 0.8 });
    expect(countKeys(out)).toBe(2000);
    expect(times(out)).toEqual(clip.lanes.map((l) => l.turn.map((k) => Math.round(1000 + (k.time - 1000) * 0.8))));
    expect(times(retimeKeys(out, allKeys(out), { about: 1000, by: 1.25 }))).toEqual(times(clip));
    expect(retimeKeys(clip, refs, { about: 1000, by: 1 })).toBe(clip);
  });
  it('retimed as a whole, keys come to stand on whole frames, the length goes along, and what is worn too', () => {
    const c: Clip = {
      ...busy(2, 2, 6),
      swaps: [{ alternateSet: 'mouth', keys: [0, 100, 250].map((time) => ({ time, mount: null })) }],
    };
    // Six keys, four frames apart at 24 a second, in a clip of 1,300 ticks.
    const whole = retimeClip(c, { about: 0, by: 1.3, frames: true, length: true });
    expect(betweenFrames(whole)).toBe(0);
    expect(times(whole)[0]).toEqual([0, 50, 150, 200, 250, 350]);
    expect(whole.length).toBe(Math.round((1.3 * 1300) / 50) * 50);
    expect(whole.swaps[0]!.keys.map((k) => k.time)).toEqual([0, 150, 350]);
    const free = retimeClip(c, { about: 0, by: 1.3, length: true });
    expect(times(free)[0]).toEqual([0, 65, 130, 195, 260, 325]);
    expect(betweenFrames(free)).toBe(5);
    // Without its length no key leaves the clip.
    expect(Math.max(...times(retimeClip(c, { about: 0, by: 9, frames: true }))[0]!)).toBe(c.length);
  });
  it('moved keys give way like single ones, whatever is chosen', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(1999), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: -20, max: 20 }),
        (picked, frames) => {
          const all = allKeys(clip),
            refs = [...new Set(picked)].map((i) => all[i]!),
            out = shiftKeys(clip, refs, frames * 50);
          // One at a time, into an empty place beside: what is moved first must not be run over.
          const d = Math.max(-Math.min(...refs.map((r) => r.time)), frames * 50);
          let slow = clip;
          const keys = refs.map((r) => ({
            r,
            key: keysOf(
              clip.lanes.find((l) => l.bone === r.bone)!,
              r.channel,
            ).find((k) => k.time === r.time)!,
          }));
          for (const { r } of keys) slow = removeKeys(slow, [r]);
          for (const { r, key } of keys) slow = setKey(slow, r.bone, r.channel, { ...key, time: key.time + d });
          expect(times(out)).toEqual(times(slow));
        },
      ),
      { seed: 3, numRuns: 60 },
    );
  });
  it('copied keys come again at another moment, on the other side when mirrored, and none beyond the end', () => {
    let c = setKey(setKey(empty, 'l', 'turn', turn(100, 0.5, [0, 1, 0])), 'l', 'move', {
      time: 300,
      ease: 'step',
      value: [1, 2, 3],
    });
    const refs: KeyRef[] = allKeys(c),
      copied = copyKeys(c, refs);
    c = pasteKeys(c, mirroredKeys(copied, rig), 600);
    const right = c.lanes.find((l) => l.bone === 'r')!;
    expect([right.turn.map((k) => k.time), right.move.map((k) => [k.time, k.value, k.ease])]).toEqual([
      [600],
      [[800, [-1, 2, 3], 'step']],
    ]);
    rotate(right.turn[0]!.value, [1, 0, 0]).forEach((v, i) =>
      expect(v).toBeCloseTo(rotate(quatFromAxisAngle([0, 1, 0], -0.5), [1, 0, 0])[i]!, 12),
    );
    expect(countKeys(pasteKeys(c, copied, 1100))).toBe(countKeys(c) + 1);
  });
  it('time put in and taken out moves all that comes after, swaps too, and out of in is nothing', () => {
    const c: Clip = {
      ...busy(2, 3, 10),
      swaps: [
        {
          alternateSet: 's',
          keys: [
            { time: 0, mount: 'm' },
            { time: 200, mount: null },
          ],
        },
      ],
    };
    const longer = rippleClip(c, 100, 150);
    expect([longer.length, times(longer)[0]!.slice(0, 5), longer.swaps[0]!.keys.map((k) => k.time)]).toEqual([
      c.length + 150,
      [0, 50, 100, 300, 350],
      [0, 350],
    ]);
    const back = rippleClip(longer, 100, -150);
    expect([back.length, times(back), back.swaps]).toEqual([c.length, times(c), c.swaps]);
    const cut = rippleClip(c, 100, -150);
    expect(times(cut)[0]!.slice(0, 4)).toEqual([0, 50, 100, 150]);
    expect(cut.lanes[0]!.turn[2]!.value).toEqual(c.lanes[0]!.turn[5]!.value);
    expect(retimed(c, 100, { about: 0, by: 99 })).toBe(c.length);
  });
});

describe('both sides', () => {
  it('half a walk makes the other half: half a cycle later each side is the mirror image of the other', () => {
    let c = setKey(setKey(empty, 'l', 'turn', turn(0, 0.6)), 'l', 'turn', turn(250, -0.2, [0, 0, 1]));
    c = setKey(setKey(c, 'r', 'turn', turn(0, -0.4)), 'h', 'move', { time: 0, ease: 'ease', value: [0.5, -1, 0] });
    c = setKey(setKey(c, 'h', 'turn', turn(0, 0.2, [0, 1, 0])), 'h', 'turn', turn(700, 9));
    const w = secondHalfMirrored(c, rig);
    expect(loopGaps(w, rig)).toEqual([]);
    const at = (b: string, time: number) =>
      sampleLane(
        w.lanes.find((l) => l.bone === b)!,
        time,
      );
    for (const t of [0, 100, 250, 400, 599]) {
      for (const [b, o] of [
        ['l', 'r'],
        ['r', 'l'],
        ['h', 'h'],
      ] as const) {
        const now = at(b, t),
          later = at(o, t + 600);
        const want = [now.q[0], -now.q[1], -now.q[2], now.q[3]];
        later.q.forEach((v, i) => expect(v).toBeCloseTo(want[i]!, 9));
        expect(later.t).toEqual([now.t[0] === 0 ? 0 : -now.t[0], now.t[1], now.t[2]].map((v) => expect.closeTo(v, 9)));
      }
    }
  });
});

describe('loops, blends and swaps', () => {
  it('what does not close is named with its figures, the worst first, and closes', () => {
    let c = setKey(setKey(empty, 'h', 'move', { time: 0, ease: 'linear', value: [0, 0, 0] }), 'h', 'move', {
      time: 1200,
      ease: 'linear',
      value: [0, 0, 3],
    });
    c = setKey(setKey(c, 'l', 'turn', turn(0, 0)), 'l', 'turn', turn(1200, 0.1));
    expect(loopGaps(c, rig)).toEqual([
      { bone: 'h', move: 3, turn: 0 },
      { bone: 'l', move: 0, turn: expect.closeTo(5.73, 2) },
    ]);
    expect(loopGaps(closedLoop(c), rig)).toEqual([]);
  });
  it('a blend is each of the two at its ends and halfway in the middle; a bone in one alone is at rest in the other', () => {
    const a = new Map([['h', { t: [0, 10, 0] as Vec3, q: quatFromAxisAngle([0, 1, 0], 1), s: [1, 1, 1] as Vec3 }]]),
      b = new Map([['l', { t: [4, 0, 0] as Vec3, q: [0, 0, 0, 1] as Quat, s: [1, 1, 1] as Vec3 }]]);
    expect(blendPoses(rig, a, b, 0).get('h')!.q).toEqual(a.get('h')!.q.map((v) => expect.closeTo(v, 12)));
    expect(blendPoses(rig, a, b, 0.5).get('h')!.q).toEqual(
      quatFromAxisAngle([0, 1, 0], 0.5).map((v) => expect.closeTo(v, 12)),
    );
    expect(blendPoses(rig, a, b, 0.5).get('l')!.t).toEqual([3, 0, 0]);
  });
  it('a set of alternates wears what the last key says, and its own where the clip says nothing', () => {
    const p: Project = {
      ...makeProject('p', 'P', idsFrom('p')),
      rig: {
        ...rig,
        mounts: ['m1', 'm2'].map((id) => ({
          id,
          part: id,
          bone: 'h',
          alternateSet: 's',
          t: [0, 0, 0],
          q: [0, 0, 0, 1],
          s: [1, 1, 1],
        })),
        alternateSets: [{ id: 's', name: 'Mouth', worn: 'm1' }],
      },
    };
    const c = setSwap(setSwap(setSwap(empty, 's', 600, null), 's', 0, 'm2'), 's', 900, 'm1');
    expect([0, 599, 600, 899, 900, 1200].map((t) => wornAt(c.swaps[0]!, t))).toEqual([
      'm2',
      'm2',
      null,
      null,
      'm1',
      'm1',
    ]);
    expect(withAlternatesAt(p, c, 700).rig.alternateSets[0]!.worn).toBeNull();
    expect([withAlternatesAt(p, c, 1000), withAlternatesAt(p, empty, 0)]).toEqual([p, p]);
    expect(removeSwaps(c, 's', [0, 600, 900]).swaps).toEqual([]);
  });
});

describe('a clip of another figure', () => {
  it('turns the same in the world however its bones lie, and goes as far as its legs are long', () => {
    const from: Project = { ...makeProject('a', 'A', idsFrom('a')), rig };
    const odd = quatFromAxisAngle([0.6, 0, 0.8], 1.1);
    const to: Project = {
      ...from,
      rig: {
        ...EMPTY_RIG,
        bones: [
          bone('H', 'hips', 'centre', null, [0, 20, 0], odd),
          bone('L', 'Leg', 'left', 'H', rotate([-odd[0], -odd[1], -odd[2], odd[3]], [4, 0, 0]), [
            -odd[0],
            -odd[1],
            -odd[2],
            odd[3],
          ]),
        ],
      },
    };
    let c = setKey(setKey(empty, 'l', 'turn', turn(0, 0.7)), 'r', 'turn', turn(0, 0.7));
    c = setKey(
      setKey(c, 'h', 'move', { time: 0, ease: 'linear', value: [0, -1, 2] }),
      'h',
      'turn',
      turn(0, 0.4, [0, 1, 0]),
    );
    const got = retarget(c, from, to),
      made: Clip = { ...empty, lanes: got.lanes };
    expect(got.missing).toEqual(['Leg right']);
    expect(got.lanes.find((l) => l.bone === 'H')!.move[0]!.value).toEqual([0, -2, 4]);
    const spin = (p: Project, clip: Clip, id: string): number[] => {
      const now = worldMatrices(p.rig, sampleClip(clip, p.rig, 0)).get(id)!,
        was = worldMatrices(p.rig).get(id)!;
      // now · was⁻¹, both turns: rows of one against rows of the other.
      return [0, 1, 2].flatMap((i) =>
        [0, 1, 2].map((j) => [0, 1, 2].reduce((s, k) => s + now[k * 4 + i]! * was[k * 4 + j]!, 0)),
      );
    };
    for (const [a, b] of [
      ['h', 'H'],
      ['l', 'L'],
    ] as const)
      spin(to, made, b).forEach((v, i) => expect(v).toBeCloseTo(spin(from, c, a)[i]!, 9));
  });
});
