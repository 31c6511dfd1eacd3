import { FACE_DIRECTIONS } from '../math';
import { type Id, type Part, type Project, composite, must } from '../model';
import { CellSet } from '../voxel';
import { EditError } from './edit';
import { latticeShift } from './edits/join-parts';

/** Faces of a part that lie in the very place of another part's, looking the same way: they flicker. */
export interface CoplanarFaces {
  readonly other: Part;
  readonly faces: number;
}

/** The parts whose faces lie in those of a part at rest, and would flicker; parts on other lattices cannot be compared and are left out. */
export function coplanarFaces(project: Project, id: Id): CoplanarFaces[] {
  const part = must(project.parts, id, 'part');
  const own = CellSet.filled(composite(part));
  return project.parts
    .filter(
      (o) =>
        o !== part &&
        !o.hidden &&
        o.cell === part.cell &&
        composite(o).count > 0 &&
        project.rig.mounts.some((m) => m.part === o.id),
    )
    .flatMap((other): CoplanarFaces[] => {
      let theirs: CellSet;
      try {
        theirs = CellSet.filled(composite(other)).moved(latticeShift(project, part, other));
      } catch (e) {
        if (e instanceof EditError) return [];
        throw e;
      }
      const both = own.intersect(theirs);
      if (both.isEmpty) return [];
      const faces = FACE_DIRECTIONS.reduce(
        (n, s) => n + both.minus(own.moved([-s[0], -s[1], -s[2]])).minus(theirs.moved([-s[0], -s[1], -s[2]])).count,
        0,
      );
      return faces > 0 ? [{ other, faces }] : [];
    })
    .sort((a, b) => b.faces - a.faces);
}
