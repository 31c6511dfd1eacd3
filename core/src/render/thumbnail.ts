import { MAT4_IDENTITY, type Steps, type Vec3, add, finish, scale, mapVec, boxCorners, sub } from '../math';
import { type Clip, DEFAULT_LIGHT, type Part, type Project, composite, must, sceneByItself } from '../model';
import { withAlternatesAt, sampleClip } from '../motion';
import { fromLinear } from '../palette';
import { gather } from '../scene';
import { SceneRay } from './intersect';
import { type TraceCamera, traceCamera } from './lens';
import { surfacesOf } from './material';
import { type TraceInstance, traceInstance } from './shape';
import { traceLight } from './surroundings';
import { type TraceScene, traceScene, traceInstances } from './trace-scene';

/** Edge of a project's thumbnail in pixels, and of a part's, which is shown in rows of a tray: there are many of those. */
export const THUMBNAIL = 160;
export const PART_THUMBNAIL = 96;

/** A part alone, seen from its front and right, on nothing: sRGB with alpha, `edge`² pixels. */
export const partThumbnail = (project: Project, part: Part, edge = PART_THUMBNAIL): Uint8Array<ArrayBuffer> =>
  finish(partThumbnailSteps(project, part, edge));

/** {@link partThumbnail} in pieces. */
export function partThumbnailSteps(
  project: Project,
  part: Part,
  edge = PART_THUMBNAIL,
): Steps<Uint8Array<ArrayBuffer>> {
  const palette = must(project.palettes, part.palette, 'palette');
  const i = traceInstance(composite(part), surfacesOf(palette, 1), MAT4_IDENTITY);
  return drawFlat(i ? [i] : [], edge);
}

/** The whole project at rest. */
export const projectThumbnail = (project: Project, edge = THUMBNAIL): Uint8Array<ArrayBuffer> =>
  finish(projectThumbnailSteps(project, edge));

/** {@link projectThumbnail} in pieces. */
export function projectThumbnailSteps(project: Project, edge = THUMBNAIL): Steps<Uint8Array<ArrayBuffer>> {
  // A project of scenes alone has no figure to show.
  const scene = sceneByItself(project),
    list = gather(project, scene === null ? { of: 'rig' } : { of: 'scene', scene });
  return drawFlat(traceInstances(list, 1), edge);
}

/**
 * A clip as pictures, all in the frame that holds every one of them.
 *
 * @param every – ticks from one picture to the next; the end of a loop, which is its beginning, is left out
 */
export function clipPictures(project: Project, clip: Clip, edge: number, every: number): Uint8Array<ArrayBuffer>[] {
  const frames: TraceInstance[][] = [];
  for (let t = 0; t < clip.length; t += every) {
    const pose = sampleClip(clip, project.rig, t);
    frames.push(traceInstances(gather(withAlternatesAt(project, clip, t), { of: 'rig', pose }), 1));
  }
  return frames.map((f) => finish(drawFlat(f, edge, frames.flat())));
}

const AHEAD: Vec3 = [-0.52, -0.4, -0.75];

/** Flat light from three sides, four rays a pixel: quick, calm and the same in every place it is drawn. */
function* drawFlat(
  instances: readonly TraceInstance[],
  edge: number,
  framed = instances,
): Steps<Uint8Array<ArrayBuffer>> {
  const out = new Uint8Array(edge * edge * 4);
  if (instances.length === 0) return out;
  const scene = traceScene({
    instances,
    light: traceLight(DEFAULT_LIGHT),
    camera: cameraAround(framed, edge),
    width: edge,
    height: edge,
  });
  const ray = new SceneRay();
  for (let y = 0; y < edge; y++) {
    if (y % 16 === 0) yield y / edge;
    for (let x = 0; x < edge; x++) drawPixel(scene, ray, edge, x, y, out);
  }
  return out;
}

/** Looks at instances so that all of them just fit. */
function cameraAround(framed: readonly TraceInstance[], edge: number): TraceCamera {
  const lo = mapVec([0, 1, 2], (a) => Math.min(...framed.map((i) => i.lo[a]!)));
  const hi = mapVec([0, 1, 2], (a) => Math.max(...framed.map((i) => i.hi[a]!)));
  const centre = scale(add(lo, hi), 0.5);
  const radius = Math.hypot(hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]) / 2;
  const eye = add(centre, scale(AHEAD, -radius * 3));
  const camera = traceCamera({ kind: 'orthographic', eye, target: centre, fov: 1, height: 2 }, edge, edge);
  // Fit by the corners of the box as they are seen, not by its sphere, so that tall things are not lost in the frame.
  let reach = 0;
  for (const corner of boxCorners({ min: lo, size: sub(hi, lo) })) {
    const d = sub(corner, centre);
    for (const v of [camera.right, camera.up])
      reach = Math.max(reach, Math.abs(d[0] * v[0]! + d[1] * v[1]! + d[2] * v[2]!));
  }
  return traceCamera({ kind: 'orthographic', eye, target: centre, fov: 1, height: reach * 2.06 }, edge, edge);
}

/** One pixel of {@link drawFlat}: the mean of four rays. */
function drawPixel(scene: TraceScene, ray: SceneRay, edge: number, x: number, y: number, out: Uint8Array): void {
  const { eye: e, right: r, up: p, ahead: d } = scene.camera;
  let red = 0,
    green = 0,
    blue = 0,
    hits = 0;
  for (let s = 0; s < 4; s++) {
    const u = ((x + 0.25 + (s & 1) * 0.5) / edge) * 2 - 1,
      v = 1 - ((y + 0.25 + (s >> 1) * 0.5) / edge) * 2;
    const ox = e[0] + r[0] * u + p[0] * v,
      oy = e[1] + r[1] * u + p[1] * v,
      oz = e[2] + r[2] * u + p[2] * v;
    if (!ray.intersect(scene, ox, oy, oz, d[0], d[1], d[2], 0, Infinity)) continue;
    const { colour, emissive } = scene.instances[ray.instance]!.shape.surfaces;
    const light = flatShade(ray.nx, ray.ny, ray.nz) + Math.min(1, emissive[ray.value]!) * 0.8;
    red += colour[ray.value * 3]! * light;
    green += colour[ray.value * 3 + 1]! * light;
    blue += colour[ray.value * 3 + 2]! * light;
    hits++;
  }
  if (hits === 0) return;
  const o = (y * edge + x) * 4;
  [red, green, blue].forEach((c, i) => {
    out[o + i] = Math.round(255 * Math.min(1, fromLinear(Math.min(1, c / hits))));
  });
  out[o + 3] = Math.round((hits / 4) * 255);
}

/** How bright a face is by where it looks: above most, then ahead, then to the right. */
const flatShade = (nx: number, ny: number, nz: number): number =>
  0.62 + 0.38 * Math.max(0, ny) + 0.2 * Math.max(0, nz) + 0.02 * Math.max(0, nx) - 0.12 * Math.max(0, -ny);
