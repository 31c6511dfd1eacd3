import { dot, length, normalize, sub } from '@sphalerite/core/math';
import { type CameraKind, makeCamera } from '@sphalerite/core/model';
import { hourOf, hourTold, sunAt } from '@sphalerite/core/render';
import { describe, expect, it } from 'vitest';
import { straightened } from './camera-kinds';
import { SHAPES, shaped } from './output-shapes';

describe('kinds of cameras', () => {
  const free = makeCamera({ eye: [31, 40, 18], target: [1, 2, 3] });
  const heightOf = (kind: CameraKind): number => {
    const { eye, target } = straightened({ ...free, kind });
    const away = sub(eye, target);
    // As far away as before.
    expect(length(away)).toBeCloseTo(length(sub(free.eye, free.target)), 6);
    return (Math.asin(normalize(away)[1]) * 180) / Math.PI;
  };
  it('look down at the angle of their kind, from the side that is nearest', () => {
    expect(heightOf('isometric')).toBeCloseTo(35.264, 2);
    expect(heightOf('dimetric')).toBeCloseTo(30, 5);
    expect(heightOf('three-quarter')).toBeCloseTo(45, 5);
    expect(heightOf('top')).toBeCloseTo(90, 1);
    expect(straightened({ ...free, kind: 'orthographic' })).toEqual({ ...free, kind: 'orthographic' });
    const { eye, target } = straightened({ ...free, kind: 'isometric' });
    const d = normalize(sub(eye, target));
    // All three axes alike.
    expect(Math.abs(d[0])).toBeCloseTo(Math.abs(d[1]), 9);
    expect(Math.abs(d[2])).toBeCloseTo(Math.abs(d[1]), 9);
    expect(dot(d, normalize(sub(free.eye, free.target)))).toBeGreaterThan(0.8);
  });
});

describe('the time of day', () => {
  it('has the sun highest at one, low and red early and late, and tells its hour again', () => {
    expect(sunAt(13).elevation).toBeCloseTo(58, 5);
    expect(sunAt(13).azimuth).toBeCloseTo(0, 9);
    expect(sunAt(7).elevation).toBeLessThan(15);
    expect(sunAt(7).colour).not.toBe(sunAt(13).colour);
    for (const hour of [6, 9.5, 13, 17, 20]) expect(hourOf(sunAt(hour))).toBeCloseTo(hour, 1);
    expect([hourTold(6), hourTold(16.5), hourTold(9.99)]).toEqual(['06:00', '16:30', '09:59']);
  });
});

describe('shapes of pictures', () => {
  it('keep about as many pixels, in even numbers', () => {
    for (const { value, is } of SHAPES) {
      const size = shaped(value, [1280, 720]);
      expect(is(size)).toBe(true);
      expect(size.every((v) => v % 2 === 0)).toBe(true);
      expect((size[0] * size[1]) / (1280 * 720)).toBeCloseTo(1, 1);
    }
  });
});
