import { MAT4_IDENTITY, type Vec3, add, scale } from '../math';
import { type Clip, DEFAULT_LIGHT, type Part, type Project, composite } from '../model';
import { fromLinear } from '../palette';
import { dressedAt, sampleClip } from '../motion';
import { REST_POSE, placeParts } from '../rig';
import { hit, intersectScene } from './intersect';
import { type TraceInstance, type TraceScene, traceCamera, traceInstance, traceLight } from './trace-scene';
import { surfacesOf } from './trace-surfaces';

/** Edge of a thumbnail in pixels. */
export const THUMBNAIL = 160;

/** A part alone, seen from its front and right, on nothing: sRGB with alpha, `edge`² pixels. */
export function partThumbnail(project: Project, part: Part, edge = THUMBNAIL): Uint8Array<ArrayBuffer> {
  const i = traceInstance(composite(part), surfacesOf(project, part.palette, 1), MAT4_IDENTITY);
  return drawFlat(i ? [i] : [], edge);
}

/** The whole project at rest. */
export function projectThumbnail(project: Project, edge = THUMBNAIL): Uint8Array<ArrayBuffer> {
  return drawFlat(
    placeParts(project, REST_POSE).flatMap(
      ({ part, matrix }) => traceInstance(composite(part), surfacesOf(project, part.palette, 1), matrix) ?? [],
    ),
    edge,
  );
}

/**
 * A clip as pictures, all in the frame that holds every one of them.
 *
 * @param every – ticks from one picture to the next; the end of a loop, which is its beginning, is left out
 */
export function clipPictures(project: Project, clip: Clip, edge: number, every: number): Uint8Array<ArrayBuffer>[] {
  const frames: TraceInstance[][] = [];
  for (let t = 0; t < clip.length; t += every) {
    frames.push(
      placeParts(dressedAt(project, clip, t), sampleClip(clip, project.rig, t)).flatMap(
        ({ part, matrix }) => traceInstance(composite(part), surfacesOf(project, part.palette, 1), matrix) ?? [],
      ),
    );
  }
  return frames.map((f) => drawFlat(f, edge, frames.flat()));
}

const AHEAD: Vec3 = [-0.52, -0.4, -0.75];

/** Flat light from three sides, four rays a pixel: quick, calm and the same in every place it is drawn. */
function drawFlat(instances: readonly TraceInstance[], edge: number, framed = instances): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(edge * edge * 4);
  if (instances.length === 0) return out;
  const lo = [0, 1, 2].map((a) => Math.min(...framed.map((i) => i.lo[a]!))) as unknown as Vec3;
  const hi = [0, 1, 2].map((a) => Math.max(...framed.map((i) => i.hi[a]!))) as unknown as Vec3;
  const centre = scale(add(lo, hi), 0.5);
  const radius = Math.hypot(hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]) / 2;
  const eye = add(centre, scale(AHEAD, -radius * 3));
  let camera = traceCamera({ kind: 'orthographic', eye, target: centre, fov: 1, height: 2 }, edge, edge);
  // Fit by the corners of the box as they are seen, not by its sphere, so that tall things are not lost in the frame.
  let reach = 0;
  for (let k = 0; k < 8; k++) {
    const p: Vec3 = [k & 1 ? lo[0] : hi[0], k & 2 ? lo[1] : hi[1], k & 4 ? lo[2] : hi[2]];
    const d = [p[0] - centre[0], p[1] - centre[1], p[2] - centre[2]] as const;
    for (const v of [camera.right, camera.up])
      reach = Math.max(reach, Math.abs(d[0] * v[0] + d[1] * v[1] + d[2] * v[2]));
  }
  camera = traceCamera({ kind: 'orthographic', eye, target: centre, fov: 1, height: reach * 2.06 }, edge, edge);
  const scene: TraceScene = {
    instances,
    emitters: new Float64Array(0),
    light: traceLight({ ...DEFAULT_LIGHT, ground: { kind: 'none', colour: '#000000' } }, 0),
    camera,
    width: edge,
    height: edge,
  };
  const sum = [0, 0, 0, 0];
  for (let y = 0; y < edge; y++) {
    for (let x = 0; x < edge; x++) {
      sum.fill(0);
      for (let s = 0; s < 4; s++) {
        const u = ((x + 0.25 + (s & 1) * 0.5) / edge) * 2 - 1,
          v = 1 - ((y + 0.25 + (s >> 1) * 0.5) / edge) * 2;
        const { eye: e, right: r, up: p, ahead: d } = camera;
        if (
          !intersectScene(
            scene,
            e[0] + r[0] * u + p[0] * v,
            e[1] + r[1] * u + p[1] * v,
            e[2] + r[2] * u + p[2] * v,
            d[0],
            d[1],
            d[2],
            0,
            Infinity,
          )
        )
          continue;
        const surfaces = instances[hit.instance]!.surfaces;
        const glow = Math.min(1, surfaces.emissive[hit.value]!);
        const shade =
          0.62 +
          0.38 * Math.max(0, hit.ny) +
          0.2 * Math.max(0, hit.nz) +
          0.02 * Math.max(0, hit.nx) -
          0.12 * Math.max(0, -hit.ny);
        for (let c = 0; c < 3; c++) sum[c]! += surfaces.colour[hit.value * 3 + c]! * (shade + glow * 0.8);
        sum[3]! += 1;
      }
      const o = (y * edge + x) * 4;
      if (sum[3] === 0) continue;
      for (let c = 0; c < 3; c++)
        out[o + c] = Math.round(255 * Math.min(1, fromLinear(Math.min(1, sum[c]! / sum[3]!))));
      out[o + 3] = Math.round((sum[3]! / 4) * 255);
    }
  }
  return out;
}
