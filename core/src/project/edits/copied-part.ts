import { type Id, type Part, withFaceIds } from '../../model';
import { freeAmong } from '../bringing';
import type { EditContext } from '../edit';

/** A copy of a part with cubes of its own, named apart from `among`; it follows no other side and was taken from nothing. */
export const copiedPart = (part: Part, among: readonly Part[], ctx: EditContext, id: Id = ctx.newId()): Part => ({
  ...part,
  id,
  name: freeAmong(among, part),
  layers: part.layers.map((l) => ({ ...l, id: ctx.newId() })),
  regions: part.regions && { ...part.regions, id: ctx.newId() },
  faceSlots: withFaceIds(part.faceSlots, () => ctx.newId()),
  twin: null,
  origin: null,
});
