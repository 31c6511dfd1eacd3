import { type Extent, type Vec3, add, boxCorners, dot, length, scale, sub } from '../math';
import { type Project, type Shot, find, withoutHelpers } from '../model';
import { shotPose, shotProject, traceCamera } from '../render';
import { gather, listExtent } from '../scene';
import type { Frame } from './frames';

/** The cell in which each sprite stands, in pixels. */
export interface SpriteCell {
  readonly size: readonly [number, number];
  /** Where the origin of what stands there lies, from the upper left corner of a cell. */
  readonly anchor: readonly [number, number];
}

/** Most pixels along an edge of a cell. */
export const MOST_CELL = 2048;

const along = (from: Vec3, way: Vec3, by: number): Vec3 => add(from, scale(way, by));

/** How far what a shot shows reaches; null when there is nothing. */
function extentOf(project: Project, shot: Shot): Extent | null {
  const scene = find(project.scenes, shot.scene);
  const dressed = withoutHelpers(shotProject(project, shot));
  return listExtent(
    gather(dressed, scene ? { of: 'scene', scene: scene.id } : { of: 'rig', pose: shotPose(project, shot) }),
  );
}

/**
 * One cell that all frames fit into, about the origin, and the frames with a camera that draws them so: without perspective,
 * a cube so many pixels wide where it is looked at square on, its edges on edges of pixels.
 *
 * @throws RangeError when a cell would be larger than {@link MOST_CELL}
 */
export function spriteFrames(project: Project, frames: readonly Frame[]): { cell: SpriteCell; frames: Frame[] } {
  const { scale: pixels, padding } = frames[0]!.shot.output.sprites;
  let [left, right, low, high] = [0, 0, 0, 0];
  const known = new Map<string, Extent | null>();
  for (const { shot } of frames) {
    const key = `${shot.clip} ${shot.time}`;
    if (!known.has(key)) known.set(key, extentOf(project, shot));
    const extent = known.get(key);
    if (!extent) continue;
    const { side, above } = traceCamera(flat(shot), 1, 1);
    for (const corner of boxCorners({ min: extent.lo, size: sub(extent.hi, extent.lo) })) {
      const x = dot(corner, side) * pixels,
        y = dot(corner, above) * pixels;
      left = Math.min(left, x);
      right = Math.max(right, x);
      low = Math.min(low, y);
      high = Math.max(high, y);
    }
  }
  // What lies on an edge of a pixel but for rounding needs no pixel more.
  const up = (v: number): number => Math.ceil(v - 1e-6) + padding;
  const [l, r, t, b] = [up(-left), up(right), up(high), up(-low)];
  const width = Math.max(1, l + r),
    height = Math.max(1, t + b);
  if (Math.max(width, height) > MOST_CELL)
    throw new RangeError(`A sprite of ${width} × ${height} pixels is too large.`);
  const cell: SpriteCell = { size: [width, height], anchor: [l, t] };
  return { cell, frames: frames.map((f) => ({ ...f, shot: celled(f.shot, cell, pixels) })) };
}

/** The camera without perspective, looking at the origin the way it looked. */
function flat({ camera }: Shot): Shot['camera'] {
  const away = sub(camera.eye, camera.target);
  const kind = camera.kind === 'perspective' ? 'orthographic' : camera.kind;
  return { ...camera, kind, eye: away, target: [0, 0, 0], roll: 0, shift: [0, 0], aperture: 0 };
}
function celled(shot: Shot, { size, anchor }: SpriteCell, pixels: number): Shot {
  const camera = flat(shot),
    { side, above } = traceCamera(camera, 1, 1);
  const x = (size[0] / 2 - anchor[0]) / pixels,
    y = (anchor[1] - size[1] / 2) / pixels;
  const by = (p: Vec3): Vec3 => along(along(p, side, x), above, y);
  // Far enough away that nothing lies behind the eye.
  const far = Math.max(1, (Math.max(...size) * 4) / pixels / length(camera.eye));
  return {
    ...shot,
    camera: { ...camera, eye: by(along([0, 0, 0], camera.eye, far)), target: by([0, 0, 0]), height: size[1] / pixels },
    output: { ...shot.output, size, transparent: true },
  };
}
