import { FACE_DIRECTIONS, type Vec3, boxHas } from '../../math';
import { type FaceSlots, type Id, type Part, find, must, replaceRecord, withFaceIds } from '../../model';
import { VoxelGrid } from '../../voxel';
import { EditError, defineEdit } from '../edit';

/** A face of a cube, by its cell and the direction it looks, as in `FACE_DIRECTIONS`. */
export interface PickedFace {
  readonly cell: Vec3;
  readonly direction: number;
}

const NONE: FaceSlots = { list: [], faces: [] };
/** Slots that no face is of any more are forgotten, as are directions without any. */
function used({ list, faces }: FaceSlots): FaceSlots | null {
  const kept = faces.filter((f) => f.grid.count > 0);
  const bytes = new Set<number>();
  for (const f of kept) f.grid.forEach((_x, _y, _z, v) => bytes.add(v));
  return kept.length === 0 ? null : { list: list.filter((s) => bytes.has(s.byte)), faces: kept };
}

/** The slot that a face was picked for; null where none was. */
export function pickedSlot({ faceSlots }: Part, { cell, direction }: PickedFace): string | null {
  const byte = faceSlots?.faces.find((f) => f.direction === direction)?.grid.get(...cell) ?? 0;
  return faceSlots?.list.find((s) => s.byte === byte)?.name ?? null;
}

/** Gives faces of a part a material slot of their own, over what swatches and directions say; an empty name takes it from them. */
export const slotFacesEdit = defineEdit<{ part: Id; slot: string; faces: readonly PickedFace[] }>({
  name: 'slotFaces',
  label: (a, p) =>
    a.slot
      ? `Faces of ${find(p.parts, a.part)?.name ?? 'a part'} to slot ${a.slot}`
      : `Faces of ${find(p.parts, a.part)?.name ?? 'a part'} to no slot`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part');
    if (part.twin) throw new EditError('faceSlots.twin', { part: part.name });
    const before = part.faceSlots ?? NONE;
    const name = a.slot.trim();
    let { list } = before,
      byte = 0;
    if (name) {
      const known = list.find((s) => s.name === name);
      byte = known?.byte ?? 1 + Math.max(0, ...list.map((s) => s.byte));
      if (byte > 255) throw new EditError('faceSlots.tooMany', { part: part.name });
      if (!known) list = [...list, { byte, name }];
    }
    const faces = [...before.faces];
    FACE_DIRECTIONS.forEach((_, direction) => {
      const mine = a.faces.filter((f) => f.direction === direction && boxHas(part.bounds, f.cell));
      if (mine.length === 0) return;
      const at = faces.findIndex((f) => f.direction === direction);
      const grid = (faces[at]?.grid ?? VoxelGrid.empty(part.bounds)).edit((d) => {
        for (const { cell } of mine) d.set(...cell, byte);
      });
      if (at < 0) faces.push({ id: ctx.newId(), direction, grid });
      else if (grid !== faces[at]!.grid) faces[at] = { ...faces[at]!, grid };
    });
    if (faces.length === before.faces.length && faces.every((f, i) => f === before.faces[i])) return project;
    const faceSlots = withFaceIds(used({ list, faces: faces.sort((x, y) => x.direction - y.direction) }), (id) => id);
    return { ...project, parts: replaceRecord(project.parts, { ...part, faceSlots }) };
  },
});
