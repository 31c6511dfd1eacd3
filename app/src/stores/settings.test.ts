import { expect, it } from 'vitest';
import { settingsSchema } from './settings';

it('settings that are garbled or missing are as they come, each by itself; those of old count on', () => {
  const fresh = settingsSchema.parse({});
  expect(fresh).toMatchObject({ theme: 'system', edges: 'cubes', grid: true, coachDone: false, vision: 'all' });
  const stored = {
    theme: 'dusk',
    tray: 'wide',
    vision: 'x-ray',
    closedCards: [7],
    grid: false,
    edges: false,
    unknown: 1,
  };
  expect(settingsSchema.parse(stored)).toEqual({ ...fresh, theme: 'dusk', grid: false, edges: 'none' });
});
