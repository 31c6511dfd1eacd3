import { expect, it } from 'vitest';
import type { Entry } from '@sphalerite/core/words';
import { CATALOGUE, counted, say } from '.';

it('one, none and many are said as one says them, with thousands', () => {
  expect([0, 1, 2, 2616].map((n) => counted(n, 'cubes'))).toEqual(['0 cubes', '1 cube', '2 cubes', '2,616 cubes']);
  expect(say('rig.allMounted', { bones: counted(1, 'bones'), parts: counted(3, 'parts') })).toBe(
    '1 bone, 3 parts, all mounted',
  );
  expect(say('ground.clash', { n: 1, a: 'Shin', b: 'Skirt' })).toBe('Shin stands 1 cube in Skirt.');
});

it('what a sentence names has to be given', () =>
  expect(() => say('rig.allMounted', { bones: '2 bones' })).toThrow('“rig.allMounted” wants parts.'));

it('every form of an entry names the same things, and no sentence counts without saying of what', () => {
  const names = (text: string) => [...text.matchAll(/\{(\w+)\}/g)].map((m) => m[1]).filter((n) => n !== 'n');
  for (const [key, entry] of Object.entries<Entry>(CATALOGUE)) {
    if (typeof entry === 'string') expect(entry, key).not.toContain('{n}');
    else expect(names(entry.one), key).toEqual(names(entry.other));
  }
});
