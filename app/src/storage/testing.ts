import { seededRandom } from '@sphalerite/core/math';
import { type Project, idsFrom, makeProject, projectToJson } from '@sphalerite/core/model';
import {
  type Edit,
  type History,
  addBoneEdit,
  addPartEdit,
  addReferenceEdit,
  addSceneEdit,
  apply,
  changePlacementsEdit,
  current,
  deletePartEdit,
  deleteRecordEdit,
  deleteReferenceEdit,
  editContext,
  placeEdit,
  record,
  resizePartEdit,
  restoreEdit,
  startHistory,
  strokeEdit,
} from '@sphalerite/core/project';
import { boxStroke } from '@sphalerite/core/sculpt';
import { EMPTY_VIEW, type ViewState, chosenAnew } from './view-state';

// What tests of storage share: histories to store, and all that makes two of them the same.

export type H = History<ViewState>;
let n = 0;
/** Makes an edit of the present the next step. */
export function step<A>(h: H, edit: Edit<A>, args: A): H {
  n++;
  const project = apply(current(h), edit, args, editContext(`storage ${n}`, n));
  const viewAfter = chosenAnew(EMPTY_VIEW, { part: project.parts[0]?.id ?? null });
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

/** Bytes that begin as a PNG does. */
const pictureOf = (seed: number): Uint8Array<ArrayBuffer> =>
  Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, seed & 3, 9, 9]);

/** Some change of a scene or of a picture to work from: pieces in rows of their own, and files. */
function otherEdit(h: H, seed: number): H {
  const random = seededRandom(seed ^ 0x5bd1);
  const p = current(h);
  const scene = p.scenes[0];
  const kind = random();
  if (kind < 0.25) {
    const part = p.parts[0]!.id;
    const sketch = { name: 'Sketch', part, plane: 'front', bytes: pictureOf(seed), at: [0, 0], size: [4, 4] } as const;
    return step(h, addReferenceEdit, sketch);
  }
  if (kind < 0.35 && p.references.length > 0) return step(h, deleteReferenceEdit, { reference: p.references[0]!.id });
  if (!scene) return step(h, addSceneEdit, { name: 'Quay' });
  if (kind < 0.45) return step(h, deleteRecordEdit, { kind: 'scene', id: scene.id });
  const placements = scene.placements.flat();
  if (kind < 0.7 || placements.length === 0) {
    const shows = { kind: 'rig', clip: null, time: 0 } as const;
    const many = Array.from({ length: 1 + (seed % 90) }, (_, i) => ({ shows, t: [i, 0, 0] as const }));
    return step(h, placeEdit, { scene: scene.id, placements: many });
  }
  const { id } = placements[Math.floor(random() * placements.length)]!;
  return step(h, changePlacementsEdit, { scene: scene.id, changes: [{ id, change: { t: [0, random(), 0] } }] });
}

/** Some edit or other: mostly cubes, now and then a part, a bone, a volume, a scene, a picture, something from the bin. */
export function anyEdit(h: H, seed: number): H {
  const random = seededRandom(seed);
  const p = current(h);
  const kind = random();
  if (seed % 5 === 0) return otherEdit(h, seed);
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
