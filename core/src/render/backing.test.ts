import { expect, it } from 'vitest';
import { type SceneParts, type TraceScene, backed, traceArea } from '.';
import { evenLight, greyFloor, lookedAt } from './testing';

const SIZE = 24;
const empty = {
  width: SIZE,
  height: SIZE,
  light: new Float32Array(SIZE * SIZE * 3),
  cover: new Float32Array(SIZE ** 2),
};
/** Nothing but ground and sky, looked at from a low place. */
const view = (more: Partial<SceneParts> = {}): TraceScene =>
  lookedAt(
    [],
    evenLight(0.4, { sunDirection: [0.6, 0.8, 0], sunColour: [1.5, 1.2, 1] }, 0.7),
    [0, 12, 40],
    [0, 6, 0],
    { floor: { ...greyFloor(0, 0.5), fade: [60, 300] }, ...more },
    SIZE,
    50,
  );

it('what a view has not drawn is ground and sky as they are traced', () => {
  const scene = view();
  const [tile] = backed({ ...empty, guides: null }, scene).tiles;
  const traced = traceArea(scene, { x: 0, y: 0, width: SIZE, height: SIZE }, 0, 32);
  for (let i = 0; i < tile!.light.length; i++) expect(tile!.light[i]! / (traced.light[i]! / 32)).toBeCloseTo(1, 1);
  const mean = (l: Float32Array, k: number): number => l.reduce((a, b) => a + b, 0) / k;
  expect(mean(tile!.light, 1) / mean(traced.light, 32)).toBeCloseTo(1, 2);
});
it('what it has drawn stays, half of it over half of what is behind; a clear picture has no sky', () => {
  const behind = backed({ ...empty, guides: null }, view()).tiles[0]!.light;
  const drawn = { ...empty, cover: new Float32Array(SIZE ** 2).fill(0.5), light: empty.light.map(() => 0.25) };
  const [half] = backed({ ...drawn, guides: null }, view()).tiles;
  half!.light.forEach((v, i) => expect(v).toBeCloseTo(0.25 + behind[i]! / 2, 5));
  const [clear] = backed({ ...empty, guides: null }, view({ floor: null, transparent: true })).tiles;
  expect(clear!.light.every((v) => v === 0) && clear!.cover.every((v) => v === 0)).toBe(true);
});
