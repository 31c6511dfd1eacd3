import { describe, expect, it } from 'vitest';
import { readXyz } from '../../codec';
import { finish, seededRandom } from '../../math';
import { meshOptions } from './mesh';
import { pointsSteps } from './points';

const make = (text: string, options = {}) =>
  finish(pointsSteps(readXyz(new TextEncoder().encode(text)), { ...meshOptions.parse({}), ...options }, null));

describe('points as cubes', () => {
  it('come cube for cube with their colours, wherever they lie and however far apart', () => {
    const random = seededRandom(3);
    const cells = new Map<string, readonly [number, number, number]>();
    for (let i = 0; i < 400; i++) {
      const at = [0, 1, 2].map(() => Math.floor(random() * 12)).join();
      cells.set(at, [0, 1, 2].map(() => 40 * Math.floor(random() * 5)) as unknown as readonly [number, number, number]);
    }
    const line = (of: number): string =>
      [...cells]
        .map(
          ([at, c]) =>
            `${at
              .split(',')
              .map((v) => (Number(v) * 0.25 + of).toFixed(4))
              .join(' ')} ${c.join(' ')}`,
        )
        .join('\n');
    for (const text of [
      line(0),
      `# twelve by twelve\r\n${line(-71.3).replaceAll(' ', ', ').replaceAll('\n', '\r\n')}`,
    ]) {
      const { grid, swatches, exact } = make(text);
      expect(exact).toBeCloseTo(0.25, 6);
      expect(grid.count).toBe(cells.size);
      const colours = new Map(swatches.map((s) => [s.byte, s.colour]));
      const hex = (c: readonly number[]): string => `#${c.map((v) => v.toString(16).padStart(2, '0')).join('')}`;
      for (const [at, c] of cells) {
        const [x, y, z] = at.split(',').map(Number) as [number, number, number];
        expect(colours.get(grid.get(x - 6, y, z - 6))).toBe(hex(c));
      }
    }
  });

  it('that lie anyhow give cubes as high as is wished', () => {
    const random = seededRandom(9);
    const inside = Array.from({ length: 5000 }, () => [random(), random() * 2, random(), 255, 0, 0].join(' '));
    const cloud = ['0 0 0', '1 2 1', ...inside].join('\n');
    const { grid, exact } = make(cloud, { height: 16 });
    expect(exact).toBeNull();
    expect(grid.bounds.size).toEqual([8, 16, 8]);
    expect(grid.count).toBeGreaterThan(900);
  });

  it('says which line is none', () => {
    expect(() => make('1 2 3\n4 five 6\n')).toThrow(/Line 2 is no place/);
    expect(() => make('# nothing\n')).toThrow(/no points/);
  });
});
