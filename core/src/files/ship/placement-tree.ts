import { type Mat4, MAT4_IDENTITY, matrixOf, mulMat } from '../../math';
import type { Id, Placement } from '../../model';

/** Where the placements of a scene stand, and what hangs on what. */
export class PlacementTree {
  private readonly worlds = new Map<Id, Mat4>();
  constructor(private readonly placements: ReadonlyMap<Id, Placement>) {}

  /** Takes points of a placement to the scene. */
  world(id: Id): Mat4 {
    let m = this.worlds.get(id);
    if (!m) {
      const p = this.placements.get(id)!;
      m = mulMat(p.parent === null ? MAT4_IDENTITY : this.world(p.parent), matrixOf(p));
      this.worlds.set(id, m);
    }
    return m;
  }

  /** Whether a placement is another or hangs on it, however far down. */
  hangsOn(id: Id, above: Id): boolean {
    for (let at: Id | null = id; at !== null; at = this.placements.get(at)?.parent ?? null)
      if (at === above) return true;
    return false;
  }
}
