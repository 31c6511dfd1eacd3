import {
  type Extent,
  QUAT_IDENTITY,
  matrixOf,
  mulMat,
  placedExtent,
  scale,
  translation,
  uniteExtents,
} from '@sphalerite/core/math';
import { composite, pivotPoint } from '@sphalerite/core/model';
import { placeStampEdit, stampSet } from '@sphalerite/core/project';
import { useSession } from '../../stores/session';
import type { ShelvedStamp } from '../../stores/stamp-shelf';
import type { Landing } from './landing';
import { freeLayer } from './placing';

/** The box of a stamp about its anchor, in project units. */
export const stampExtent = ({ source, stamp }: ShelvedStamp): Extent | null =>
  stampSet(source, stamp.id).reduce<Extent | null>((all, part) => {
    const box = composite(part).contentBox();
    const c = part.cell,
      m = mulMat(matrixOf({ t: [0, 0, 0], q: QUAT_IDENTITY, s: [c, c, c] }), translation(scale(pivotPoint(part), -1)));
    return box ? uniteExtents(all, placedExtent(m, box)) : all;
  }, null);

/** Puts a stamp down; it is chosen then. */
export function putStamp({ shelf, source, stamp }: ShelvedStamp, { t, q }: Pick<Landing, 't' | 'q'>): void {
  const session = useSession(),
    scene = session.scene!;
  const args = {
    scene: scene.id,
    source: shelf === 'project' ? null : source,
    stamp: stamp.id,
    t,
    q,
    layer: freeLayer(scene),
  };
  const before = new Set(scene.placements.flat().map((p) => p.id));
  session.apply(placeStampEdit, args, (p) => ({
    placement: p.scenes
      .find((s) => s.id === scene.id)!
      .placements.flat()
      .find((o) => !before.has(o.id))!.id,
  }));
}
