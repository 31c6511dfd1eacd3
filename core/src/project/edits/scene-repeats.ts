import { MAT4_IDENTITY, type Vec3, decompose, invertMat, matrixOf, mulMat } from '../../math';
import {
  GROUP,
  type Id,
  type Placement,
  type Repeat,
  type RepeatException,
  type Scene,
  appended,
  must,
  replaceRecord,
  worldOfPlacement,
} from '../../model';
import { SceneTree } from '../../scene';
import { say } from '../../words';
import { defineEdit } from '../edit';
import { mustPlacement, sceneName, withScene } from './scenes';

type Wishes<R = Repeat> = R extends Repeat ? Omit<R, 'id' | 'placement' | 'exceptions'> : never;
/** How a placement is repeated, by kind. */
export type RepeatWishes = Wishes;

/** A repeat of each kind as it is first made. @param at – where the placement stands; @param size – how wide and deep it is */
export function freshRepeat(kind: Repeat['kind'], at: Vec3, [wide, , deep]: Vec3): RepeatWishes {
  const step = Math.max(1, Math.ceil(wide)) + 1,
    far = Math.max(wide, deep, 1);
  switch (kind) {
    case 'line':
      return { kind, counts: [5, 1, 1], step: [step, 0, 0] };
    case 'ring':
      return { kind, count: 6, degrees: 360, turning: true };
    case 'path':
      return {
        ...{ kind, count: 6, closed: false, facing: true },
        points: [at, [at[0] + 4 * far, at[1], at[2]], [at[0] + 6 * far, at[1], at[2] + 4 * far]],
      };
    case 'scatter':
      return {
        ...{ kind, count: 12, area: [Math.ceil(8 * far), Math.ceil(8 * far)], apart: Math.ceil(far) },
        ...{ on: null, lean: 0, sources: [], seed: 1, turn: 180, sizes: [0.85, 1.15] },
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

/** Copies of a repeat become placements of their own, where they stand; what they stand on they stay on. */
export const breakRepeatEdit = defineEdit<{ scene: Id; placement: Id }>({
  name: 'breakRepeat',
  label: (a, p) => say('label.breakRepeat', { scene: sceneName(p, a.scene) }),
  touches: (a) => [a.scene],
  run(project, a, ctx) {
    const scene = must(project.scenes, a.scene, 'scene'),
      repeat = scene.repeats.find((r) => r.placement === a.placement);
    if (!repeat) return project;
    const of = mustPlacement(scene, a.placement);
    const tree = new SceneTree();
    tree.list(project, scene, null);
    const above = of.parent === null ? MAT4_IDENTITY : invertMat(matrixOf(worldOfPlacement(scene, of.parent)));
    const copies = tree.placesOf(repeat.id).map(({ placed, source }): Placement => ({
      ...of,
      ...decompose(mulMat(mulMat(above, placed), matrixOf(of))),
      ...(source === null || repeat.kind !== 'scatter' ? {} : { shows: repeat.sources[source]!.shows }),
      id: ctx.newId(),
    }));
    const broken: Scene = {
      ...scene,
      placements: appended(scene.placements, copies, GROUP),
      repeats: scene.repeats.filter((r) => r !== repeat),
    };
    return withScene(project, broken);
  },
});

/** The repeat of a placement. */
export const repeatOf = (scene: Scene, placement: Id | null): Repeat | undefined =>
  placement === null ? undefined : scene.repeats.find((r) => r.placement === placement);
