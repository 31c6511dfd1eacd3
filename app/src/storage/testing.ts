import { seededRandom } from '@sphalerite/core/math';
import { type Project, idsFrom, makeProject, projectToJson } from '@sphalerite/core/model';
import {
  type Edit,
  type History,
  addBoneEdit,
  addPartEdit,
  apply,
  current,
  deletePartEdit,
  editContext,
  record,
  resizePartEdit,
  restoreEdit,
  startHistory,
  strokeEdit,
} from '@sphalerite/core/project';
import { boxStroke } from '@sphalerite/core/sculpt';
import { EMPTY_VIEW, type ViewState } from './view-state';

// What tests of storage share: histories to store, and all that makes two of them the same.

export type H = History<ViewState>;
let n = 0;
/** Makes an edit of the present the next step. */
export function step<A>(h: H, edit: Edit<A>, args: A): H {
  n++;
  const project = apply(current(h), edit, args, editContext(`storage ${n}`, n));
  const viewAfter = { ...EMPTY_VIEW, part: project.parts[0]?.id ?? null };
  return record(h, { label: `step ${n}`, at: n, where: 'Build', project, viewBefore: EMPTY_VIEW, viewAfter });
}
export const start = (size = 40): H =>
  startHistory(makeProject('lamp', 'Lamp', idsFrom('lamp'), 'prop', [size, size, size]), EMPTY_VIEW, 0);

/** One cube of the first part set, or erased by 0. */
export function cube(h: H, x: number, y: number, z: number, value: number): H {
  const part = current(h).parts[0]!;
  return step(h, strokeEdit, {
    part: part.id,
    layer: part.layers[0]!.id,
    stroke: boxStroke(value === 0 ? 'erase' : 'add', value, [{ min: [x, y, z], size: [1, 1, 1] }]),
  });
}

/** Some edit or other: mostly cubes, now and then a part, a bone, a volume, something from the bin. */
export function anyEdit(h: H, seed: number): H {
  const random = seededRandom(seed);
  const p = current(h);
  const kind = random();
  const at = (): number => Math.floor(random() * 40) - 20;
  if (kind < 0.7) return cube(h, at(), at() + 20, at(), Math.floor(random() * 5));
  if (kind < 0.78) return step(h, addPartEdit, { name: 'Part', bounds: { min: [0, 0, 0], size: [5, 5, 5] } });
  if (kind < 0.84 && p.parts.length > 1) return step(h, deletePartEdit, { part: p.parts.at(-1)!.id });
  if (kind < 0.9 && p.bin.length > 0) return step(h, restoreEdit, { item: p.bin[0]!.id });
  if (kind < 0.95) return step(h, addBoneEdit, { name: 'Bone', parent: null, t: [0, seed % 30, 0] });
  const grow = seed % 7;
  const bounds = { min: [-20 - grow, 0, -20] as const, size: [40 + grow, 40, 41] as const };
  return step(h, resizePartEdit, { part: p.parts[0]!.id, bounds, cut: true });
}

const cellsOf = (p: Project) =>
  p.parts.map((part) =>
    part.layers.map((l) =>
      [...l.grid.bricks()].map((b) => [b.at, [...b.brick].reduce((a, v, i) => (a * 31 + v * (i + 1)) >>> 0, 7)]),
    ),
  );

/** A project with its cells, as a plain value to compare. */
export const projectFacts = (p: Project) => ({ json: projectToJson(p), cells: cellsOf(p) });
/** All that makes two histories the same: every step's project with its cells, and which step is now. */
export const facts = (h: H) => ({
  now: h.now,
  steps: h.entries.map((e) => ({ label: e.label, at: e.at, view: e.viewAfter, ...projectFacts(e.project) })),
});
