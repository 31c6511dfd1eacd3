import { describe, expect, it } from 'vitest';
import { readSum } from './sum';

describe('a typed number', () => {
  it.each([
    ['12', 12],
    [' -3.5 ', -3.5],
    ['1,5', 1.5],
    ['.5', 0.5],
    ['12*1.5', 18],
    ['7+3-2', 8],
    ['10 / 4', 2.5],
    ['2*-3', -6],
    ['2+3*4', 14],
    ['3*4+1/2', 12.5],
    ['*2-3', 13],
    ['*2', 16],
    ['/ 4', 2],
    ['+1', 9],
    ['-2', -2],
    ['8-2', 6],
  ])('%s is %d', (text, value) => expect(readSum(text, 8)).toBeCloseTo(value, 12));
  it.each(['', '  ', 'x', '1/0', '3 4', '2*', '1e9', '--2', '1..2'])('%j is none', (text) =>
    expect(readSum(text, 8)).toBeNaN(),
  );
});
