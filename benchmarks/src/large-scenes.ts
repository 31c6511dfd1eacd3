import { type Quat, type Vec3, quatFromAxisAngle, seededRandom } from '@sphalerite/core/math';
import { type Project, idsFrom, makeProject, mapGrids } from '@sphalerite/core/model';
import {
  type Edit,
  addPartEdit,
  addSceneEdit,
  apply,
  editContext,
  placeEdit,
  strokeEdit,
} from '@sphalerite/core/project';
import { boxStroke } from '@sphalerite/core/sculpt';
import { terrain } from './scenes';

export const PLACEMENTS = 5000;
export const PARTS = 40;

/** To as many digits as what is turned by hand has. */
const asByHand = (q: Quat): Quat => q.map((v) => Math.round(v * 1e9) / 1e9) as unknown as Quat;

/** A market of 5,000 placements of 40 parts, made by the edits that the stage makes. */
export function manyPlacements(): Project {
  let n = 0;
  let p = makeProject('market', 'Market', idsFrom('market'), 'scene', [16, 16, 16]);
  const step = <A>(edit: Edit<A>, args: A): void => void (p = apply(p, edit, args, editContext(`market ${n++}`)));
  const random = seededRandom(2);
  const whole = (from: number, to: number): number => from + Math.floor(random() * (to - from + 1));
  for (let i = 1; i < PARTS; i++)
    step(addPartEdit, { name: 'Stall', bounds: { min: [-8, 0, -8], size: [16, 16, 16] } });
  for (const part of p.parts) {
    const boxes = Array.from({ length: 14 }, () => ({
      min: [whole(-8, 2), whole(0, 10), whole(-8, 2)] as const,
      size: [whole(1, 6), whole(1, 6), whole(1, 6)] as const,
    }));
    const value = whole(1, 12);
    step(strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke: boxStroke('add', value, boxes) });
  }
  step(addSceneEdit, { name: 'Night market' });
  const side = Math.ceil(Math.sqrt(PLACEMENTS));
  const placements = Array.from({ length: PLACEMENTS }, (_, i) => ({
    shows: { kind: 'part', part: p.parts[i % PARTS]!.id } as const,
    t: [(i % side) * 20 + random() * 3, 0, Math.floor(i / side) * 20 + random() * 3] as const,
    q: asByHand(quatFromAxisAngle([0, 1, 0], (whole(0, 3) * Math.PI) / 2)),
  }));
  step(placeEdit, { scene: p.scenes[0]!.id, placements });
  return p;
}

/** Hills of 256³ in linked copies, turned by quarters: more than a hundred million cubes to be seen. */
export function manyCubes(copies = 16): Project {
  const p = makeProject('hills', 'Hills', idsFrom('hills'), 'scene', [256, 256, 256]);
  const hills = terrain();
  const [part] = p.parts;
  const parts = [mapGrids({ ...part!, bounds: hills.bounds }, () => hills)];
  let n = 0;
  const step = <A>(of: Project, edit: Edit<A>, args: A): Project => apply(of, edit, args, editContext(`hills ${n++}`));
  const scene = step({ ...p, parts }, addSceneEdit, { name: 'Hills' });
  const side = Math.ceil(Math.sqrt(copies));
  const placements = Array.from({ length: copies }, (_, i) => ({
    shows: { kind: 'part', part: part!.id } as const,
    t: [(i % side) * 256, 0, Math.floor(i / side) * 256] as Vec3,
  }));
  return step(scene, placeEdit, { scene: scene.scenes[0]!.id, placements });
}
