import type { Vec3 } from '../../math';
import {
  type Id,
  NO_VARIATION,
  type Repeat,
  type RepeatException,
  type Scene,
  type Variation,
  must,
  placementsOf,
  replaceRecord,
} from '../../model';
import { say } from '../../words';
import { defineEdit } from '../edit';
import { mustPlacement, placeEdit, sceneName, withScene } from './scenes';

type Wishes<R = Repeat> = R extends Repeat ? Omit<R, 'id' | 'placement' | 'exceptions'> : never;
/** How a placement is repeated, by kind. */
export type RepeatWishes = Wishes;

/** As differently as bushes stand. */
export const VARIED: Variation = { ...NO_VARIATION, turn: 180, sizes: [0.85, 1.15] };

/** A row both ways without gaps: a floor of tiles. @param size – how wide and deep a tile is */
export const freshGrid = (size: Vec3): RepeatWishes => ({
  ...{ kind: 'line', counts: [12, 1, 12], step: [size[0], 0, size[2]], second: null, vary: NO_VARIATION },
});

/** A repeat of each kind as it is first made. @param at – where the placement stands; @param size – how wide and deep it is */
export function freshRepeat(kind: Repeat['kind'], at: Vec3, [wide, , deep]: Vec3): RepeatWishes {
  const step = Math.max(1, Math.ceil(wide)) + 1,
    far = Math.max(wide, deep, 1),
    vary = NO_VARIATION;
  switch (kind) {
    case 'line':
      return { kind, counts: [5, 1, 1], step: [step, 0, 0], second: null, vary };
    case 'ring':
      return { kind, count: 6, degrees: 360, turning: true, vary };
    case 'mirror':
      // Across the middle of its parent, unless it stands there itself.
      return { kind, axis: 0, at: Math.abs(at[0]) * 2 > wide ? 0 : at[0] + Math.ceil(wide / 2) + 1, vary };
    case 'path':
      return {
        ...{ kind, count: 6, closed: false, facing: true, vary },
        points: [at, [at[0] + 4 * far, at[1], at[2]], [at[0] + 6 * far, at[1], at[2] + 4 * far]],
      };
    case 'scatter':
      return {
        ...{ kind, count: 12, area: [Math.ceil(8 * far), Math.ceil(8 * far)], apart: Math.ceil(far) },
        ...{ on: null, off: [], sources: [], vary: VARIED },
      };
  }
}

/** Repeats a placement, or changes how it is repeated. Exceptions stay with their copies. */
export const repeatEdit = defineEdit<{ scene: Id; placement: Id; wishes: RepeatWishes }>({
  name: 'repeat',
  label: (a, p) => say('label.repeat', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, { scene: id, placement, wishes }, ctx) {
    const scene = must(project.scenes, id, 'scene'),
      old = scene.repeats.find((r) => r.placement === placement);
    mustPlacement(scene, placement);
    const repeat = { exceptions: old?.exceptions ?? [], ...wishes, id: old?.id ?? ctx.newId(), placement } as Repeat;
    if (old && JSON.stringify(old) === JSON.stringify(repeat)) return project;
    return withScene(project, {
      ...scene,
      repeats: old ? replaceRecord(scene.repeats, repeat) : [...scene.repeats, repeat],
    });
  },
});

/** Places something and repeats it, as one step. */
export const placeRepeatedEdit = defineEdit<{
  scene: Id;
  placement: Parameters<typeof placeEdit.run>[1]['placements'][number];
  wishes: RepeatWishes;
}>({
  name: 'placeRepeated',
  label: (a, p) => say('label.placeRepeated', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, { scene, placement, wishes }, ctx) {
    const placed = placeEdit.run(project, { scene, placements: [placement] }, ctx);
    const last = placementsOf(must(placed.scenes, scene, 'scene')).at(-1)!;
    return repeatEdit.run(placed, { scene, placement: last.id, wishes }, ctx);
  },
});

/** Leaves the placement alone again. */
export const endRepeatEdit = defineEdit<{ scene: Id; placement: Id }>({
  name: 'endRepeat',
  label: (a, p) => say('label.endRepeat', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a) {
    const scene = must(project.scenes, a.scene, 'scene');
    const repeats = scene.repeats.filter((r) => r.placement !== a.placement);
    return repeats.length === scene.repeats.length ? project : withScene(project, { ...scene, repeats });
  },
});

/** One copy is another way than its repeat has it, or left out; null takes that back. */
export const repeatExceptionEdit = defineEdit<{
  scene: Id;
  repeat: Id;
  copy: number;
  is: Omit<RepeatException, 'copy'> | null;
}>({
  name: 'repeatException',
  label: (a, p) => say('label.repeatException', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a) {
    const scene = must(project.scenes, a.scene, 'scene'),
      repeat = must(scene.repeats, a.repeat, 'repeat');
    const others = repeat.exceptions.filter((e) => e.copy !== a.copy);
    const exceptions = a.is === null ? others : [...others, { ...a.is, copy: a.copy }].sort((x, y) => x.copy - y.copy);
    if (JSON.stringify(exceptions) === JSON.stringify(repeat.exceptions)) return project;
    return withScene(project, { ...scene, repeats: replaceRecord(scene.repeats, { ...repeat, exceptions }) });
  },
});

/** All copies are as their repeat has them again. */
export const clearExceptionsEdit = defineEdit<{ scene: Id; repeat: Id }>({
  name: 'clearExceptions',
  label: (a, p) => say('label.clearExceptions', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a) {
    const scene = must(project.scenes, a.scene, 'scene'),
      repeat = must(scene.repeats, a.repeat, 'repeat');
    if (repeat.exceptions.length === 0) return project;
    return withScene(project, { ...scene, repeats: replaceRecord(scene.repeats, { ...repeat, exceptions: [] }) });
  },
});

/** The repeat of a placement. */
export const repeatOf = (scene: Scene, placement: Id | null): Repeat | undefined =>
  placement === null ? undefined : scene.repeats.find((r) => r.placement === placement);
