import { type Vec3, dot, length, placedExtent, sub } from '@sphalerite/core/math';
import { find } from '@sphalerite/core/model';
import { shotPose, shotProject } from '@sphalerite/core/render';
import { type DrawList, gather } from '@sphalerite/core/scene';
import { rayWalk } from '@sphalerite/core/voxel';
import { useSession } from '../../stores/session';
import { toLattice } from '../../viewport/pick';
import type { ViewPointer } from '../../viewport/view-input';
import type { WorldRay } from '../../viewport/viewport';
import { useGuides } from './guides';
import { useShot } from './shot-in-hand';

/** How far along a ray the nearest cube of a draw list is, in lengths of its direction; null where there is none. */
function nearest(list: DrawList, ray: WorldRay): number | null {
  let best = Infinity;
  for (const { geometry, matrix } of list) {
    if (geometry.kind !== 'grid') continue;
    const box = geometry.grid.contentBox();
    if (!box) continue;
    const { lo, hi } = placedExtent(matrix, box);
    if (!meets(lo, hi, ray, best)) continue;
    const local = toLattice(ray, matrix);
    const hit = rayWalk(geometry.grid, local.origin, local.dir);
    if (hit && hit.t > 0) best = Math.min(best, hit.t);
  }
  return best < Infinity ? best : null;
}
/** Whether a ray meets a box before `most`, by slabs. */
function meets(lo: Vec3, hi: Vec3, { origin, dir }: WorldRay, most: number): boolean {
  let near = 0,
    far = most;
  for (let a = 0; a < 3; a++) {
    const i = a as 0 | 1 | 2;
    const [s, t] = [(lo[i] - origin[i]) / dir[i], (hi[i] - origin[i]) / dir[i]];
    near = Math.max(near, Math.min(s, t));
    far = Math.min(far, Math.max(s, t));
  }
  return near <= far;
}

/** What lies under the pointer becomes what is sharp; gives whether anything did. */
export function focusAt(p: ViewPointer): boolean {
  const session = useSession();
  const hand = useShot();
  const { shot } = session;
  if (!session.project || !shot) return false;
  const project = shotProject(session.project, shot);
  const scene = find(project.scenes, shot.scene);
  const list = gather(
    project,
    scene ? { of: 'scene', scene: scene.id } : { of: 'rig', pose: shotPose(session.project, shot) },
  );
  const t = nearest(list, p.ray);
  if (t === null) return false;
  const { eye, target } = shot.camera;
  const ahead = sub(target, eye);
  const place = sub([0, 1, 2].map((a) => p.ray.origin[a]! + p.ray.dir[a]! * t) as unknown as Vec3, eye);
  useGuides().focusing = false;
  // A lens without blur would show nothing of it.
  const aperture = shot.camera.aperture === 0 ? { aperture: 0.35 } : {};
  hand.set('camera', { focus: Math.max(1e-3, dot(place, ahead) / length(ahead)), ...aperture });
  return true;
}
