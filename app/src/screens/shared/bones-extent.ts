import { type Extent, type Vec3, transformPoint, uniteExtents } from '@sphalerite/core/math';
import type { Id } from '@sphalerite/core/model';
import { worldMatrices } from '@sphalerite/core/rig';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';

/** Units around a joint that are framed along with it. */
const AROUND = 2;

/** What bones take up as they are shown: their joints, and the parts that hang on them; null for none. */
export function bonesExtent(bones: readonly Id[]): Extent | null {
  const project = useSession().shown,
    view = useView();
  if (!project || !view.viewport) return null;
  const mounts = new Set(project.rig.mounts.flatMap((m) => (m.bone && bones.includes(m.bone) ? [m.id] : [])));
  const world = worldMatrices(project.rig, view.pose);
  let all = view.viewport.extentOf((i) => mounts.has(i.source.mount!));
  for (const bone of bones) {
    const m = world.get(bone);
    if (!m) continue;
    const at = transformPoint(m, [0, 0, 0]);
    const away = (by: number): Vec3 => [at[0] + by, at[1] + by, at[2] + by];
    all = uniteExtents(all, { lo: away(-AROUND), hi: away(AROUND) });
  }
  return all;
}
