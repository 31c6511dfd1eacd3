import { DEMOS } from '@sphalerite/content';
import { type Project, idsFrom, makeProject } from '@sphalerite/core/model';
import { addClipEdit, apply, editContext } from '@sphalerite/core/project';
import { expect, it } from 'vitest';
import { screenOf, useScreens } from '../shell/screens';
import { SCREENS } from './list';

it('each screen says everything about itself, once', () => {
  useScreens(SCREENS);
  for (const of of ['id', 'title', 'icon'] as const)
    expect(new Set(SCREENS.map((s) => s[of])).size).toBe(SCREENS.length);
  for (const s of SCREENS) {
    expect(s.id, 'as it stands in an address').toMatch(/^[a-z]+$/);
    expect(s.help.steps.length, s.id).toBeGreaterThan(1);
    expect(s.help.lesson.text.length, s.id).toBeGreaterThan(20);
    expect(screenOf(s.id)).toBe(s);
  }
  expect(screenOf('nowhere')).toBe(SCREENS[0]);
});

it('counts what it is about, and says what still wants doing', () => {
  const onLine = SCREENS.filter((s) => s.beside === undefined);
  expect(SCREENS.slice(0, onLine.length), 'those beside the line come last').toEqual(onLine);
  const tamsin = DEMOS['tamsin']!();
  const figures = (p: Project) => onLine.map((s) => s.count?.(p) ?? null);
  const wants = (p: Project) => onLine.map((s) => s.wants(p));
  expect(figures(tamsin)).toEqual([19, 24, 4, 0, tamsin.shots.length, null]);
  expect(wants(tamsin)).toEqual([null, null, null, null, null, null]);
  const fresh = makeProject('p', 'Crate', idsFrom('screens'), 'prop', [8, 8, 8]);
  const clip = { name: 'Sway', frames: 12, fps: 12, loop: true };
  expect(wants(apply(fresh, addClipEdit, clip, editContext('screens')))).toEqual([
    '“Body” has no cubes yet',
    null,
    '“Sway” has no keys yet',
    null,
    null,
    null,
  ]);
  const loose = { ...tamsin, rig: { ...tamsin.rig, mounts: tamsin.rig.mounts.map((m) => ({ ...m, bone: null })) } };
  expect(wants(loose)[1]).toBe('19 parts hang on no bone');
});
