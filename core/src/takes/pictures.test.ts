import { describe, expect, it } from 'vitest';
import { finish, seededRandom } from '../math';
import { makeGrade } from '../model';
import {
  TILE,
  addTraced,
  coarseOf,
  denoised,
  developFilm,
  guided,
  lightOf,
  makeFilm,
  makeTraced,
  rowsAbout,
  spreadSteps,
  tileAreas,
  tileOf,
  traceCamera,
} from '../render';
import { LARGE, PIECE, PiecePlan, coveredArea, isLarge, joinedSquares, pieceSteps, squareOf } from '.';

const [W, H] = [PIECE * 2 + 70, 150];
const camera = traceCamera({ kind: 'orthographic', eye: [0, 0, 100], target: [0, 0, 0], fov: 30, height: 100 }, W, H);

/** A noisy wall of two planes and two colours. */
function film() {
  const out = makeFilm(W, H),
    random = seededRandom(4);
  for (const area of tileAreas(W, H)) {
    const t = makeTraced(area, 4);
    for (let p = 0; p < area.width * area.height; p++) {
      const x = area.x + (p % area.width),
        near = x % 300 < 150,
        colour = near ? 0.7 : 0.3;
      for (let s = 0; s < 4; s++) {
        const v = colour * random() * (random() < 0.01 ? 8 : 1);
        t.light.fill(t.light[p * 3]! + v, p * 3, p * 3 + 3);
        t.squares[p]! += v * v;
        if (s & 1) t.odd[p]! += v;
      }
      t.cover[p] = 4;
      t.albedo.fill(colour * 4, p * 3, p * 3 + 3);
      t.normal[p * 3 + 2] = 4;
      t.depth[p] = (near ? 80 : 100) * 4;
      t.id[p] = near ? 2 : 3;
      t.votes[p] = 4;
    }
    addTraced(out, t);
  }
  return out;
}

describe('a picture piece by piece', () => {
  it('is made so when it is too large to be kept as a whole', () => {
    expect(isLarge({ makes: 'picture', size: [3840, 2160] })).toBe(true);
    expect(isLarge({ makes: 'picture', size: [1920, 1080] })).toBe(false);
    expect(isLarge({ makes: 'clip', size: [LARGE, 2] })).toBe(false);
  });
  it('is the very picture that it is whole: without noise, with lines, with light that is spread, in strips of rows', () => {
    const whole = film(),
      grade = makeGrade({ bloom: 0.3, vignette: 0.4, outline: { width: 3, colour: '#102030', inside: true } });
    const expected = developFilm(guided(denoised(whole, camera), whole), { grade });
    const plan = new PiecePlan(W, H, true);
    expect(plan.rows.map((r) => r.length)).toEqual([3]);
    const pieces = plan.pieces.map((piece) => {
      const about = new Set(plan.tilesFor([piece]).map((i) => tileOf(whole, plan.tiles[i]!)));
      expect(about.size).toBeLessThan(whole.tiles.length);
      const near = { ...whole, tiles: whole.tiles.map((t) => (about.has(t) ? t : null)) };
      return finish(pieceSteps(near, camera, piece, true));
    });
    const spread = finish(
      spreadSteps(
        joinedSquares(
          pieces.map((p) => [p, coarseOf(p, grade, H)]),
          W,
          H,
        ),
        H,
      ),
    );
    const strips = [
      [0, 40],
      [40, 41],
      [41, H],
    ] as const;
    const made = strips.flatMap((rows) => {
      const tiles = rowsAbout(pieces, grade, rows);
      return [...developFilm({ width: W, height: H, tiles }, { grade, rows, spread })];
    });
    expect(made.length).toBe(expected.length);
    expect(made.findIndex((v, i) => v !== expected[i])).toBe(-1);
  });
  it('that is cut out ends where the last piece has something', () => {
    const cover = new Float32Array(20).fill(0);
    cover[7] = 0.2;
    cover[13] = 1;
    const piece = { x: 100, y: 40, width: 5, height: 4, cover };
    expect(coveredArea([piece, { ...piece, y: 44, cover: new Float32Array(20) }])).toEqual({
      ...{ x: 102, y: 41, width: 2, height: 2 },
    });
    expect(coveredArea([{ ...piece, cover: new Float32Array(20) }])).toBe(null);
  });
  it('traces each tile once, and lets it go when no piece needs it any more', () => {
    const plan = new PiecePlan(PIECE + TILE, PIECE * 3, true);
    expect([plan.tiles.length, plan.pieces.length, plan.rows.length]).toEqual([7 * 18, 6, 3]);
    for (const [row, pieces] of plan.rows.entries()) {
      const needed = plan.tilesFor(pieces);
      expect(Math.min(...needed)).toBe(plan.firstFor(row));
      // A row of pieces and three tiles on both sides of it.
      expect(plan.firstFor(row)).toBe(Math.max(0, row * 6 - 3) * 7);
    }
    expect(plan.firstFor(3)).toBe(plan.tiles.length);
    // With its noise left in, a piece needs its own tiles alone.
    expect(new PiecePlan(PIECE + TILE, PIECE * 3, false).firstFor(1)).toBe(6 * 7);
  });
});

describe('a thumbnail', () => {
  it('is the square in the middle, each of its pixels the mean of those that fall into it', () => {
    const whole = makeFilm(30, 20);
    const t = makeTraced({ x: 0, y: 0, width: 30, height: 20 }, 2);
    for (let p = 0; p < 600; p++) {
      t.light.fill(2 * (p % 30), p * 3, p * 3 + 3);
      t.cover[p] = 2;
    }
    addTraced(whole, t);
    const small = squareOf(lightOf(whole), 4, false);
    expect([small.width, small.height]).toEqual([4, 4]);
    // Columns 5 to 24 of the picture, five to a pixel.
    const reds = [0, 1, 2, 3].map((x) => small.tiles[0]!.light[x * 3]!);
    expect(reds.map((v) => Math.round(v * 1e4) / 1e4)).toEqual([7, 12, 17, 22]);
    // None is made up where there are fewer.
    expect(squareOf(lightOf(whole), 512, false).width).toBe(20);
  });
});
