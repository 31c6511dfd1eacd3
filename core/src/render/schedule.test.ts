import { describe, expect, it } from 'vitest';
import { MAT4_IDENTITY } from '../math';
import { VoxelGrid } from '../voxel';
import {
  type Film,
  type TraceScene,
  type Tracing,
  addTraced,
  makeFilm,
  tileAreas,
  tileOf,
  traceArea,
  traceInstance,
  traceTiles,
} from '.';
import { evenLight, greyFloor, lookedAt, plainSurfaces } from './testing';

/** A lit block on a floor: half of it in soft shadow, which is noisy; much sky, which is not. */
function yard(size: number): TraceScene {
  const grid = VoxelGrid.empty({ min: [-4, 0, -4], size: [8, 8, 8] }).edit((d) => d.fillBox(d.bounds, 1));
  const light = evenLight(0.2, {
    sunDirection: [0.6, 0.64, 0.48],
    sunColour: [2, 2, 2],
    sunCos: Math.cos(0.3),
  });
  const block = traceInstance(grid, plainSurfaces(0.6), MAT4_IDENTITY)!;
  return lookedAt([block], light, [30, 14, 40], [0, 4, 0], { floor: greyFloor(0, 0.5) }, size, 40);
}
function filmOf(scene: TraceScene, how: Partial<Tracing>, film = makeFilm(scene.width, scene.height)): Film {
  for (const { traced } of traceTiles(scene, { samples: 16, noise: 0, lane: 0, lanes: 1, ...how }))
    addTraced(film, traced);
  return film;
}
const counts = (film: Film): number[] => film.tiles.map((t) => t?.samples ?? 0);
const meanOf = (film: Film): number => {
  let sum = 0,
    n = 0;
  for (const t of film.tiles) {
    for (let i = 0; i < t!.light.length; i += 3) sum += t!.light[i]! / t!.samples;
    n += t!.light.length / 3;
  }
  return sum / n;
};

describe('a picture tile by tile', () => {
  const scene = yard(136);
  it('without a noise to end at is every sample of every tile; lanes share it', () => {
    const film = makeFilm(136, 136);
    filmOf(scene, { samples: 5, lane: 0, lanes: 2 }, film);
    const first = counts(film).filter((n) => n > 0).length;
    filmOf(scene, { samples: 5, lane: 1, lanes: 2 }, film);
    expect([first, counts(film)]).toEqual([5, new Array(9).fill(5)]);
  });
  it('ends where it is certain, and nowhere is it noisier than allowed; its light is the light of all samples within a hundredth of that', () => {
    const all = filmOf(scene, { samples: 96 }),
      some = filmOf(scene, { samples: 96, noise: 0.1 });
    expect(Math.min(...counts(some))).toBe(8);
    expect(Math.max(...counts(some))).toBeGreaterThan(8);
    expect(counts(some).reduce((a, b) => a + b) / 9).toBeLessThan(40);
    expect(Math.abs(meanOf(some) / meanOf(all) - 1)).toBeLessThan(0.001);
    for (const [i, t] of some.tiles.entries()) {
      if (t!.samples === 96) continue;
      const truth = all.tiles[i]!;
      let off = 0;
      for (let p = 0; p < t!.light.length; p += 3) {
        const light = truth.light[p]! / 96;
        off += ((t!.light[p]! / t!.samples - light) / (light + 0.04)) ** 2;
      }
      expect(Math.sqrt(off / (t!.light.length / 3))).toBeLessThan(0.15);
    }
  });
  it('paused and gone on with it is the very picture that it would have been', () => {
    const whole = filmOf(scene, { samples: 24, noise: 0.08 });
    const paused = makeFilm(136, 136);
    let left = 60;
    for (const { traced } of traceTiles(scene, { samples: 24, noise: 0.08, lane: 0, lanes: 1 })) {
      addTraced(paused, traced);
      if (--left === 0) break;
    }
    const had = tileAreas(136, 136).map((a) => tileOf(paused, a));
    filmOf(scene, { samples: 24, noise: 0.08, had }, paused);
    expect(counts(paused)).toEqual(counts(whole));
    for (const [i, t] of paused.tiles.entries())
      t!.light.forEach((v, k) => expect(v).toBeCloseTo(whole.tiles[i]!.light[k]!, 3));
  });
  it('what is wanted first is finished first, and the share rises to one', () => {
    const first = { x: 70, y: 70, width: 20, height: 10 };
    const order: string[] = [],
      shares: number[] = [];
    for (const { traced, share } of traceTiles(scene, { samples: 8, noise: 0, lane: 0, lanes: 1, first })) {
      order.push(`${traced.x},${traced.y}`);
      shares.push(share);
    }
    // Eight samples come in five passes.
    expect(new Set(order.slice(0, 5))).toEqual(new Set(['64,64']));
    expect(order.slice(5)).not.toContain('64,64');
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);
  });
  it('is the same picture whatever tiles it is cut into: there are no seams', () => {
    const film = filmOf(scene, { samples: 4 });
    const whole = traceArea(scene, { x: 0, y: 0, width: 136, height: 136 }, 0, 4);
    for (const t of film.tiles)
      for (let j = 0; j < t!.height; j++)
        for (let i = 0; i < t!.width; i++) {
          const at = ((t!.y + j) * 136 + t!.x + i) * 3;
          expect(t!.light[(j * t!.width + i) * 3]).toBeCloseTo(whole.light[at]!, 4);
        }
  });
});
