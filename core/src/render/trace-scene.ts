import { type Mat4, type Vec3, cross, invertMat, length, normalize, scale, sub, vec3Of, placedExtent } from '../math';
import {
  type Camera,
  type Light,
  type Project,
  type Shot,
  composite,
  find,
  inColourway,
  withoutHelpers,
} from '../model';
import { clipTime, withAlternatesAt, sampleClip } from '../motion';
import { type Rgb, hexToLinear } from '../palette';
import { type Pose, REST_POSE, placeParts } from '../rig';
import type { VoxelGrid } from '../voxel';
import { emittersOf } from './emitters';
import { type RayGrid, rayGridOf } from './ray-grid';
import { type TraceSurfaces, surfacesOf } from './trace-surfaces';

/** A grid where it stands. */
export interface TraceInstance {
  readonly grid: RayGrid;
  readonly surfaces: TraceSurfaces;
  /** World → lattice. */
  readonly toLocal: Float64Array;
  /** Unit normals of the lattice's axes in the world, 3 × 3. */
  readonly axes: Float64Array;
  /** World box, to pass it by quickly. */
  readonly lo: Vec3;
  readonly hi: Vec3;
  /** Its glowing faces; see `emittersOf`. */
  readonly emitters: readonly number[];
}

export interface TraceLight {
  readonly sunDirection: Vec3;
  readonly sunColour: Rgb;
  /** Cosine of the disc's half angle. */
  readonly sunCos: number;
  readonly zenith: Rgb;
  readonly horizon: Rgb;
  /** Height of an endless floor, or null. */
  readonly groundY: number | null;
  readonly groundColour: Rgb;
  /** Distances between which the floor melts into the horizon. */
  readonly groundFade: readonly [number, number];
}

export interface TraceCamera {
  readonly perspective: boolean;
  readonly eye: Vec3;
  /** Towards the right edge, the top edge and ahead; scaled so that the picture spans −1…1 along both. */
  readonly right: Vec3;
  readonly up: Vec3;
  readonly ahead: Vec3;
}

/** All that a picture is computed from. Plain data: it can be sent to workers as it is. */
export interface TraceScene {
  readonly instances: readonly TraceInstance[];
  /** The glowing faces of all instances, `EMITTER_STRIDE` numbers each. */
  readonly emitters: Float64Array;
  readonly light: TraceLight;
  readonly camera: TraceCamera;
  readonly width: number;
  readonly height: number;
}

const rayGrids = new WeakMap<VoxelGrid, RayGrid | null>();
const cachedRayGrid = (grid: VoxelGrid): RayGrid | null => {
  let r = rayGrids.get(grid);
  if (r === undefined) {
    r = rayGridOf(grid);
    rayGrids.set(grid, r);
  }
  return r;
};

/** A grid as an instance; null when it is empty. `matrix` takes lattice points to the world. */
export function traceInstance(grid: VoxelGrid, surfaces: TraceSurfaces, matrix: Mat4): TraceInstance | null {
  const ray = cachedRayGrid(grid);
  if (!ray) return null;
  const axes = new Float64Array(9);
  for (let a = 0; a < 3; a++) axes.set(normalize([matrix[a * 4]!, matrix[a * 4 + 1]!, matrix[a * 4 + 2]!]), a * 3);
  return {
    grid: ray,
    surfaces,
    toLocal: Float64Array.from(invertMat(matrix)),
    axes,
    ...placedExtent(matrix, { min: vec3Of(ray.min), size: vec3Of(ray.size) }),
    emitters: emittersOf(grid, surfaces, matrix),
  };
}

export function traceLight(
  light: Light,
  groundY: number,
  fade: readonly [number, number] = [Infinity, Infinity],
): TraceLight {
  const az = (light.sun.azimuth * Math.PI) / 180,
    el = (light.sun.elevation * Math.PI) / 180;
  const times = (c: Rgb, k: number): Rgb => [c[0] * k, c[1] * k, c[2] * k];
  return {
    sunDirection: [Math.sin(az) * Math.cos(el), Math.sin(el), Math.cos(az) * Math.cos(el)],
    sunColour: times(hexToLinear(light.sun.colour), light.sun.strength),
    sunCos: Math.cos((light.sun.size * Math.PI) / 360),
    zenith: times(hexToLinear(light.sky.zenith), light.sky.strength),
    horizon: times(hexToLinear(light.sky.horizon), light.sky.strength),
    groundY: light.ground.kind === 'none' ? null : groundY,
    groundColour: hexToLinear(light.ground.colour),
    groundFade: fade,
  };
}

export function traceCamera(camera: Camera, width: number, height: number): TraceCamera {
  const ahead = normalize(sub(camera.target, camera.eye));
  const side = cross(ahead, Math.abs(ahead[1]) > 0.9999 ? [0, 0, -1] : [0, 1, 0]);
  const right = normalize(side);
  const up = cross(right, ahead);
  const half = camera.kind === 'perspective' ? Math.tan((camera.fov * Math.PI) / 360) : camera.height / 2;
  return {
    perspective: camera.kind === 'perspective',
    eye: camera.eye,
    right: scale(right, (half * width) / height),
    up: scale(up, half),
    ahead,
  };
}

export const joinEmitters = (instances: readonly TraceInstance[]): Float64Array =>
  Float64Array.from(instances.flatMap((i) => i.emitters));

/** The pose that a shot shows. */
export function shotPose(project: Project, shot: Shot): Pose {
  const clip = find(project.clips, shot.clip);
  return clip ? sampleClip(clip, project.rig, clipTime(clip, shot.time)) : REST_POSE;
}

/** The project as a shot shows it: in its colourway, with sets of alternates wearing what the clip says at its moment. */
export function shotProject(project: Project, shot: Shot): Project {
  const clip = find(project.clips, shot.clip);
  return withAlternatesAt(inColourway(project, shot.colourway), clip ?? null, clip ? clipTime(clip, shot.time) : 0);
}

/** The scene of a shot, in its colourway, at the shot's own size unless another is given. The floor lies at the lowest cube of the rest pose. */
export function traceSceneOf(whole: Project, shot: Shot, size: readonly [number, number] = shot.size): TraceScene {
  const project = shotProject(withoutHelpers(whole), shot);
  const instancesAt = (pose: Pose): TraceInstance[] =>
    placeParts(project, pose).flatMap(({ part, matrix }) => {
      const i = traceInstance(composite(part), surfacesOf(project, part.palette, shot.light.glow), matrix);
      return i ? [i] : [];
    });
  const floor = Math.min(0, ...instancesAt(REST_POSE).map((i) => i.lo[1]));
  const instances = instancesAt(shotPose(project, shot));
  const away = length(sub(shot.camera.eye, shot.camera.target));
  return {
    instances,
    emitters: joinEmitters(instances),
    light: traceLight(shot.light, Math.round(floor * 1000) / 1000, [away * 2, away * 9]),
    camera: traceCamera(shot.camera, size[0], size[1]),
    width: size[0],
    height: size[1],
  };
}
