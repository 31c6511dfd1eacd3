import type { Steps } from '../../math';
import type { Id, Project } from '../../model';
import { gatherShippedSteps } from '../ship/gather-shipped';
import { type Shipped, countsOf } from '../ship/ship-model';
import type { ShipProfile } from '../ship/ship-profile';

/** Where the triangles of a delivery are: by part, and by what makes them. */
export interface FaceShares {
  readonly parts: readonly { readonly part: Id; readonly name: string; readonly triangles: number }[];
  /** Of flat regions of one or two faces. */
  readonly spots: number;
  /** Of regions one face wide. */
  readonly stairs: number;
  readonly rest: number;
  /** Of all of it, were all colours merged to pictures. */
  readonly merged: number;
}

/** {@link FaceShares} of what is shipped, in pieces. */
export function* faceSharesSteps(project: Project, what: Shipped, profile: ShipProfile): Steps<FaceShares> {
  const plain: ShipProfile = {
    ...profile,
    mesh: { ...profile.mesh, as: 'parts' },
    collider: { ...profile.collider, shape: 'none' },
    looks: { ...profile.looks, clips: false },
  };
  const model = yield* gatherShippedSteps(project, what, plain);
  const parts = new Map<Id, { part: Id; name: string; triangles: number }>();
  let [spots, stairs, all] = [0, 0, 0];
  for (const { mesh } of model.nodes) {
    if (mesh === null) continue;
    const { part, name, pieces } = model.meshes[mesh]!;
    for (const { shape } of pieces) {
      const n = model.shapes[shape]!.indices.length / 3;
      spots += model.covers[shape]!.spots;
      stairs += model.covers[shape]!.stairs;
      all += n;
      const row = parts.get(part!);
      if (row) row.triangles += n;
      else parts.set(part!, { part: part!, name, triangles: n });
    }
  }
  const { merge } = profile.mesh;
  const other: ShipProfile = {
    ...plain,
    mesh: { ...plain.mesh, merge: 'all' },
    picture: { ...plain.picture, layout: 'atlas', most: 8192 },
  };
  return {
    parts: [...parts.values()].sort((a, b) => b.triangles - a.triangles),
    spots,
    stairs,
    rest: all - spots - stairs,
    // The other ways of merging are as good already.
    merged: merge === 'colour' ? countsOf(yield* gatherShippedSteps(project, what, other)).triangles : all,
  };
}
