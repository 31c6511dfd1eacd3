import { READY_RIGS, buildTamsin } from '@sphalerite/content';
import { bakeClip } from '@sphalerite/core/files';
import { type Quat, seededRandom, transformPoint } from '@sphalerite/core/math';
import { type Clip, PLAIN_CLIP, TICKS } from '@sphalerite/core/model';
import { allKeys, keysOf, removeKeys, retimeKeys, retimed, sampleClip, setKey } from '@sphalerite/core/motion';
import { placeParts } from '@sphalerite/core/rig';
import { clipFrames, contactReport } from '@sphalerite/core/scene';
import { type Row, median, ms } from './rows';

/** 20 lanes of 100 turns. */
function busy(): Clip {
  const random = seededRandom(4);
  return {
    ...PLAIN_CLIP,
    id: 'c',
    name: 'Busy',
    length: 6000,
    fps: 24,
    loop: false,
    lanes: Array.from({ length: 20 }, (_l, i) => ({
      bone: `b${i}`,
      move: [],
      hinge: [],
      scale: [],
      turn: Array.from({ length: 100 }, (_k, k) => ({
        time: 50 * k,
        ease: 'ease' as const,
        value: [random(), 0, 0, 1] as Quat,
      })),
    })),
  };
}

function manyKeys(): Row {
  const clip = busy(),
    refs = allKeys(clip);
  const ours = median(9, () => void retimeKeys(clip, refs, { about: 2000, by: 0.8 }));
  const theirs = median(1, () => {
    const taken = refs.map((r) => ({
      r,
      key: keysOf(
        clip.lanes.find((l) => l.bone === r.bone)!,
        r.channel,
      ).find((k) => k.time === r.time)!,
    }));
    let out = clip;
    for (const { r } of taken) out = removeKeys(out, [r]);
    for (const { r, key } of taken)
      out = setKey(out, r.bone, r.channel, { ...key, time: retimed(clip, key.time, { about: 2000, by: 0.8 }) });
  });
  return {
    name: '2,000 keys scaled in time by 0.8',
    ours: ms(ours),
    theirs: `${ms(theirs)} key by key`,
    ratio: theirs / ours,
    goal: '≤ 16 ms',
    ok: ours <= 16,
  };
}

function playing(): Row {
  const p = READY_RIGS['ready-quadruped']!(),
    clip = p.clips.find((c) => c.name === 'Walk')!;
  const times = Array.from({ length: 200 }, (_, i) => (i * 37) % clip.length);
  const ours = median(5, () => times.forEach((t) => void placeParts(p, sampleClip(clip, p.rig, t))));
  const bare = { ...p, rig: { ...p.rig, constraints: [] } };
  const theirs = median(5, () => times.forEach((t) => void placeParts(bare, sampleClip(clip, bare.rig, t))));
  return {
    name: '200 frames of a walk: 29 bones, 21 parts, four limbs',
    ours: ms(ours),
    theirs: `${ms(theirs)} without its limbs`,
    ratio: theirs / ours,
    goal: '≤ 0.3 ms a frame',
    ok: ours <= 60,
  };
}

function contact(): Row {
  const p = buildTamsin(),
    clip = p.clips.find((c) => c.name === 'Walk')!;
  const frames = clipFrames(p, clip);
  const ours = median(5, () => void contactReport(p, clip, null, frames));
  let low = Infinity;
  const theirs = median(3, () =>
    frames.forEach((list) =>
      list.forEach(({ geometry, matrix }) => {
        if (geometry.kind !== 'grid') return;
        geometry.grid.forEach((x, y, z) => {
          for (let k = 0; k < 8; k++)
            low = Math.min(low, transformPoint(matrix, [x + (k & 1), y + ((k >> 1) & 1), z + (k >> 2)])[1]);
        });
      }),
    ),
  );
  return {
    name: 'contact of a walk: 25 frames, 19 parts',
    ours: ms(ours),
    theirs: `${ms(theirs)} every corner of every cube, depth alone`,
    ratio: theirs / ours,
    goal: '≥ 3×',
    ok: theirs / ours >= 3,
  };
}

function shippedKeys(): Row {
  const p = buildTamsin(),
    clip = p.clips.find((c) => c.name === 'Walk')!;
  let keys = 0;
  const ours = median(3, () => (keys = bakeClip(clip, p.rig).reduce((n, t) => n + t.times.length, 0)));
  // A straight key wherever a thousandth of a cube would be missed: eighths of a tick apart in the widest turns; 240 a second is the most engines take.
  const plain = bakeClip(clip, p.rig).length * (Math.round((clip.length / TICKS) * 240) + 1);
  return {
    name: 'a walk shipped within 0.0001 cubes a joint',
    ours: `${keys} keys, ${ms(ours)}`,
    theirs: `${plain} straight keys at 240 a second`,
    ratio: plain / keys,
    goal: '≥ 3× fewer',
    ok: plain / keys >= 3,
  };
}

export const motionRows = (): Row[] => [manyKeys(), playing(), contact(), shippedKeys()];
