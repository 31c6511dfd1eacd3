import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type CameraPath,
  type Project,
  type Shot,
  TICKS,
  idsFrom,
  makeCamera,
  makeOutput,
  makeProject,
  makeStage,
} from '../model';
import { addClipEdit, addSceneEdit, addShotEdit, apply, editContext, placeEdit, strokeEdit } from '../project';
import { shotProject } from '../render';
import { boxStroke } from '../sculpt';
import { finish } from '../math';
import {
  type Cell,
  coveredBox,
  framesOf,
  pictureSteps,
  sheetOf,
  spriteFrames,
  takeProblem,
  timesOf,
  turnedShot,
} from '.';

let n = 0;
const ctx = () => editContext(`takes ${n++}`);

/** A cube of 4 that stands about the origin, with one corner cube of another colour on top. */
function block(more: Partial<Shot> = {}): { project: Project; shot: Shot } {
  let p = makeProject('p', 'Block', idsFrom('block'), 'prop', [8, 8, 8]);
  const { id: part, layers } = p.parts[0]!;
  const put = (byte: number, min: readonly [number, number, number], size: readonly [number, number, number]): void => {
    p = apply(p, strokeEdit, { part, layer: layers[0]!.id, stroke: boxStroke('add', byte, [{ min, size }]) }, ctx());
  };
  put(5, [-2, 0, -2], [4, 4, 4]);
  put(9, [-2, 4, -2], [1, 1, 1]);
  const camera = makeCamera({ kind: 'orthographic', eye: [0, 0, 40], target: [0, 0, 0] });
  p = apply(
    p,
    addShotEdit,
    { name: 'Front', shot: { camera, stage: makeStage({ ground: { kind: 'none', colour: '#ffffff' } }), ...more } },
    ctx(),
  );
  return { project: p, shot: p.shots.at(-1)! };
}
const sprites = (more: Partial<Shot['output']['sprites']> = {}): Shot['output'] =>
  makeOutput({
    makes: 'sprites',
    samples: 1,
    denoise: false,
    sprites: { directions: 4, clips: 'one', scale: 1, trim: false, shadow: false, padding: 0, ...more },
  });

describe('frames of a shot', () => {
  it('a loop ends before its first picture comes again, anything else with its last', () => {
    expect(timesOf({ length: TICKS, loop: true }, 4)).toEqual([0, 300, 600, 900]);
    expect(timesOf({ length: TICKS, loop: false }, 4)).toEqual([0, 300, 600, 900, 1200]);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60_000 }), fc.integer({ min: 1, max: 60 }), (length, fps) => {
        const times = timesOf({ length, loop: true }, fps);
        expect(new Set(times).size === times.length || length < times.length).toBe(true);
        expect(Math.max(...times)).toBeLessThan(length);
      }),
    );
  });
  it('once about, the camera keeps its distance and height, and never stands twice at one place', () => {
    const { project, shot } = block({
      output: makeOutput({
        makes: 'path',
        path: { kind: 'orbit', reach: 360, eased: false, plays: false },
        fps: 6,
        seconds: 2,
      }),
    });
    const frames = framesOf(project, { ...shot, camera: makeCamera({ eye: [30, 20, 10], target: [2, 5, 1] }) });
    expect(frames).toHaveLength(12);
    expect(frames.reduce((s, f) => s + f.seconds, 0)).toBeCloseTo(2, 9);
    const places = frames.map(({ shot: { camera: c } }) => c.eye.map((v, a) => v - c.target[a]!));
    for (const p of places) {
      expect(Math.hypot(...p)).toBeCloseTo(Math.hypot(28, 15, 9), 9);
      expect(p[1]).toBe(15);
    }
    expect(new Set(places.map((p) => p.map((v) => v.toFixed(6)).join())).size).toBe(12);
    expect(new Set(frames.map((f) => f.shot.light.sun.azimuth)).size).toBe(1);
  });
  it('a path of part of a turn has its middle where the camera stands, eased or not; a fly-past keeps its eye on what it passes', () => {
    const camera = makeCamera({ eye: [0, 10, 50], target: [0, 10, 0] });
    const along = (path: CameraPath) => {
      const { project, shot } = block({ output: makeOutput({ makes: 'path', path, fps: 5, seconds: 1 }) });
      return framesOf(project, { ...shot, camera }).map((f) => f.shot);
    };
    for (const eased of [false, true]) {
      const orbit = along({ kind: 'orbit', reach: 60, eased, plays: false });
      expect(orbit[2]!.camera.eye.map((v) => Math.round(v * 1e9) / 1e9)).toEqual([0, 10, 50]);
      expect(orbit[4]!.camera.eye[0]).toBeCloseTo(25, 9);
      expect(orbit[0]!.camera.eye[0]).toBeCloseTo(-25, 9);
      expect(orbit[3]!.camera.eye[0]).toBeCloseTo(50 * Math.sin((eased ? 0.84375 - 0.5 : 0.25) * (Math.PI / 3)), 9);
    }
    const past = along({ kind: 'fly-past', reach: 90, eased: false, plays: false });
    expect(past.map((s) => s.camera.eye[0])[0]).toBeCloseTo(-50, 9);
    expect(past.map((s) => s.camera.eye[0])[4]).toBeCloseTo(50, 9);
    expect(new Set(past.map((s) => s.camera.target.join())).size).toBe(1);
    // One that would reach about and about goes as far as it can, from one side to the other.
    const far = along({ kind: 'fly-past', reach: 360, eased: false, plays: false }).map((s) => s.camera.eye[0]);
    expect(far[0]).toBeCloseTo(-far[4]!, 6);
    expect(far[4]).toBeCloseTo(50 * Math.tan((80 * Math.PI) / 180), 6);
    const turn = along({ kind: 'turntable', reach: 360, eased: false, plays: false });
    // Light and eye go together: what turns is what stands there.
    for (const s of turn) {
      const away = Math.atan2(s.camera.eye[0], s.camera.eye[2]) * (180 / Math.PI);
      expect(((away - s.light.sun.azimuth + camera.eye[0] + turn[0]!.light.sun.azimuth + 720) % 360) % 360).toBeCloseTo(
        0,
        6,
      );
    }
  });
  it('light goes with the eye about a figure that turns: four sides of a square pillar are one picture', () => {
    const { project, shot } = block();
    const pillar = apply(
      project,
      strokeEdit,
      {
        part: project.parts[0]!.id,
        layer: project.parts[0]!.layers[0]!.id,
        stroke: boxStroke('erase', 0, [{ min: [-2, 4, -2], size: [1, 1, 1] }]),
      },
      ctx(),
    );
    const seen = {
      ...shot,
      camera: makeCamera({ kind: 'orthographic', eye: [20, 16, 24], target: [0, 2, 0], height: 9 }),
    };
    const small = { ...seen, output: makeOutput({ size: [12, 12], samples: 64, denoise: false, transparent: true }) };
    const [front, side] = [0, 90].map((d) => finish(pictureSteps(pillar, turnedShot(small, d, true))));
    const apart = front!.map((v, i) => Math.abs(v - side![i]!)).reduce((a, b) => a + b) / front!.length;
    expect(apart).toBeLessThan(1.5);
    const unlit = finish(pictureSteps(pillar, turnedShot(small, 90, false)));
    expect(front!.map((v, i) => Math.abs(v - unlit[i]!)).reduce((a, b) => a + b) / front!.length).toBeGreaterThan(4);
  });
  it('of a scene all that plays in it goes on, each at its own length, for as long as the longest takes', () => {
    let { project: p } = block();
    for (const [name, frames] of [
      ['Long', 24],
      ['Short', 8],
    ] as const)
      p = apply(p, addClipEdit, { name, frames, fps: 8, loop: true }, ctx());
    const [long, short] = p.clips;
    p = apply(p, addSceneEdit, { name: 'Quay' }, ctx());
    const scene = p.scenes[0]!.id,
      rig = (clip: string | null) => ({ shows: { kind: 'rig' as const, clip, time: 100 }, t: [0, 0, 0] as const });
    const shot = { ...p.shots[0]!, scene, output: makeOutput({ makes: 'clip', fps: 4 }) };
    expect(takeProblem(p, shot)).toBe('sceneStands');
    p = apply(p, placeEdit, { scene, placements: [rig(long!.id), rig(short!.id), rig(null)] }, ctx());
    expect(takeProblem(p, shot)).toBe(null);
    const frames = framesOf(p, shot);
    // Three seconds of four pictures each; the last comes before the first again.
    expect(frames.length).toBe(12);
    expect(frames.reduce((sum, f) => sum + f.seconds, 0)).toBeCloseTo(3, 9);
    const timesAt = (i: number): number[] =>
      shotProject(p, frames[i]!.shot)
        .scenes[0]!.placements.flat()
        .map(({ shows }) => ('time' in shows ? shows.time : -1));
    expect(timesAt(0)).toEqual([100, 100, 100]);
    expect(timesAt(6)).toEqual([100 + long!.length / 2, 100 + long!.length / 2, 100]);
    // On a path it stands still, or plays on while the camera moves.
    const flown = (plays: boolean): number[] => {
      const path: CameraPath = { kind: 'fly-past', reach: 90, eased: false, plays };
      const output = makeOutput({ makes: 'path', path, fps: 4, seconds: 2 });
      return framesOf(p, { ...shot, time: 300, output }).map((f) => f.shot.time);
    };
    expect(flown(false)).toEqual(Array(8).fill(300));
    expect(flown(true)).toEqual([300, 600, 900, 1200, 1500, 1800, 2100, 2400]);
    // The project itself is as it was.
    expect(p.scenes[0]!.placements.flat()[0]!.shows).toMatchObject({ time: 100 });
  });
  it('a figure plays on along a path: a loop goes about, anything else waits at its end', () => {
    const { project } = block();
    for (const loop of [true, false]) {
      const p = apply(project, addClipEdit, { name: 'Bow', frames: 8, fps: 8, loop }, ctx());
      const path: CameraPath = { kind: 'orbit', reach: 360, eased: true, plays: true };
      const output = makeOutput({ makes: 'path', path, fps: 2, seconds: 2 });
      const times = framesOf(p, { ...p.shots[0]!, clip: p.clips[0]!.id, time: 300, output }).map((f) => f.shot.time);
      expect(times).toEqual(loop ? [300, 900, 300, 900] : [300, 900, 1200, 1200]);
    }
  });
  it('says why a shot cannot move', () => {
    const { project, shot } = block({ output: makeOutput({ makes: 'clip' }) });
    expect([takeProblem(project, shot), framesOf(project, shot)]).toEqual(['noClip', []]);
    expect(takeProblem(project, { ...shot, output: sprites({ clips: 'all' }) })).toBe('noClips');
    expect(takeProblem(project, { ...shot, output: sprites() })).toBe(null);
  });
});

describe('sprites', () => {
  it('seen square on at one pixel a cube, each pixel is a cube; the anchor is the origin', () => {
    const { project, shot } = block({ output: sprites({ directions: 4 }) });
    const { cell, frames } = spriteFrames(project, framesOf(project, shot));
    expect(cell).toEqual({ size: [4, 5], anchor: [2, 5] });
    const covers = frames.map(({ shot: s }) => {
      const rgba = finish(pictureSteps(project, s));
      return [0, 1, 2, 3, 4].map((y) =>
        [0, 1, 2, 3].map((x) => (rgba[(y * 4 + x) * 4 + 3] === 255 ? '#' : '.')).join(''),
      );
    });
    const body = ['####', '####', '####', '####'];
    // The cube on top stands at the left behind; what stands there turns against the clock, seen from above.
    expect(covers).toEqual([
      ['#...', ...body],
      ['#...', ...body],
      ['...#', ...body],
      ['...#', ...body],
    ]);
  });
  it('at more pixels a cube all is as many times as large; padding is clear', () => {
    const { project, shot } = block({ output: sprites({ directions: 1, scale: 3, padding: 2 }) });
    const { cell, frames } = spriteFrames(project, framesOf(project, shot));
    expect(cell).toEqual({ size: [12 + 4, 15 + 4], anchor: [8, 17] });
    const [width, height] = cell.size;
    const rgba = finish(pictureSteps(project, frames[0]!.shot));
    expect(coveredBox({ width, height, rgba })).toEqual({ left: 2, top: 2, width: 12, height: 15 });
    const covered = rgba.filter((v, i) => i % 4 === 3 && v === 255).length;
    expect(covered).toBe(9 * 17);
  });
  it('the shadow alone is where the figure keeps the sun off, the figure itself unseen', () => {
    const sun = { azimuth: 90, elevation: 45, size: 0.5, colour: '#ffffff', strength: 4 };
    const { project, shot } = block();
    const low: Shot = {
      ...shot,
      light: { ...shot.light, sun },
      stage: makeStage({ ground: { kind: 'shadow', colour: '#ffffff' } }),
      camera: makeCamera({ kind: 'top', eye: [0, 40, 0.001], target: [0, 0, 0], height: 16 }),
      output: makeOutput({ size: [16, 16], samples: 32, denoise: false, transparent: true }),
    };
    const rgba = finish(pictureSteps(project, low, true));
    const alpha = (x: number, z: number): number => rgba[((z + 8) * 16 + x + 8) * 4 + 3]!;
    // The sun stands at +X: the shadow falls to −X, and what the figure itself would hide is shadow too.
    expect(alpha(-5, 0)).toBeGreaterThan(60);
    expect(alpha(0, 0)).toBeGreaterThan(60);
    expect(alpha(6, 0)).toBeLessThan(30);
    expect([...rgba].filter((v, i) => i % 4 !== 3 && v > 40)).toEqual([]);
  });
});

describe('sheets', () => {
  const cells = fc.array(
    fc.record({ width: fc.integer({ min: 1, max: 6 }), height: fc.integer({ min: 1, max: 6 }), seed: fc.nat(255) }),
    { minLength: 1, maxLength: 12 },
  );
  it('every pixel of every sprite is found again where the table says, and none lies on another', () => {
    fc.assert(
      fc.property(
        cells,
        fc.boolean(),
        fc.integer({ min: 0, max: 3 }),
        fc.integer({ min: 1, max: 4 }),
        (list, trim, padding, per) => {
          const all: Cell[] = list.map(({ width, height, seed }) => ({
            width,
            height,
            rgba: Uint8Array.from({ length: width * height * 4 }, (_, i) =>
              i % 4 === 3 ? ((i * 7 + seed) % 3 === 0 ? 0 : 255) : (i * 31 + seed) % 256,
            ),
          }));
          const rows = Array.from({ length: Math.ceil(all.length / per) }, (_, r) =>
            Math.min(per, all.length - r * per),
          );
          const sheet = sheetOf(all, rows, trim, padding);
          const taken = new Set<number>();
          sheet.places.forEach((p, i) => {
            const c = all[i]!;
            for (let y = 0; y < p.height; y++)
              for (let x = 0; x < p.width; x++) {
                const at = (p.y + y) * sheet.width + p.x + x,
                  from = (p.top + y) * c.width + p.left + x;
                expect(sheet.rgba.slice(at * 4, at * 4 + 4)).toEqual(c.rgba.slice(from * 4, from * 4 + 4));
                expect(taken.has(at)).toBe(false);
                taken.add(at);
              }
            // What was cut off was clear.
            const rest = c.rgba.filter((v, at) => at % 4 === 3 && v > 0).length,
              kept = sheet.places[i]!;
            let inside = 0;
            for (let y = 0; y < kept.height; y++)
              for (let x = 0; x < kept.width; x++)
                if (c.rgba[((kept.top + y) * c.width + kept.left + x) * 4 + 3]! > 0) inside++;
            expect(inside).toBe(rest);
          });
        },
      ),
      { numRuns: 60 },
    );
  });
});
