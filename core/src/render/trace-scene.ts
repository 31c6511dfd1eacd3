import { type Vec3, length, normalize, sub } from '../math';
import { type Project, type Shot, find, inColourway, onlyHiddenLamps, withoutHelpers } from '../model';
import { clipTime, sampleClip, withAlternatesAt } from '../motion';
import { type Rgb, hexToLinear } from '../palette';
import { type Pose, REST_POSE } from '../rig';
import { type DrawInstance, type DrawList, gather, instanceExtent, movedScene } from '../scene';
import { type TraceFloor, traceFloor } from './floor';
import { type Fog, fogOf } from './fog';
import { type InstanceTree, instanceTree } from './instance-tree';
import { type TraceLamp, shotLamps } from './lamps';
import { type TraceCamera, traceCamera } from './lens';
import { LightTree } from './light-tree';
import { surfacesOf } from './material';
import { type TraceInstance, traceInstance } from './shape';
import { type TraceLight, skyPicture, traceLight } from './surroundings';

/** All that a picture is computed from. */
export interface TraceScene {
  readonly instances: readonly TraceInstance[];
  readonly tree: InstanceTree;
  readonly lights: LightTree;
  readonly light: TraceLight;
  readonly floor: TraceFloor | null;
  readonly fog: Fog | null;
  /** Whether anything is see-through. */
  readonly glassy: boolean;
  /** How wide edges of cubes are rounded, in cubes. */
  readonly edges: number;
  /** Whether what is behind things is left out. */
  readonly transparent: boolean;
  readonly camera: TraceCamera;
  readonly width: number;
  readonly height: number;
  /** What the eye meets: this same scene, or its ground alone. */
  readonly seen: TraceScene;
}

/** What a scene is made of, and what may be added to it. */
export interface SceneParts {
  readonly instances: readonly TraceInstance[];
  readonly light: TraceLight;
  readonly camera: TraceCamera;
  readonly width: number;
  readonly height: number;
  readonly lamps?: readonly TraceLamp[];
  /** Things that are seen by their glow alone. */
  readonly unseen?: readonly TraceInstance[];
  readonly floor?: TraceFloor | null;
  readonly fog?: Fog | null;
  readonly edges?: number;
  readonly transparent?: boolean;
  /** Whether the eye sees nothing but the ground, with all shadows on it. */
  readonly groundAlone?: boolean;
}

/** Puts a scene together, with what is derived from it. */
export function traceScene(parts: SceneParts): TraceScene {
  const { instances, lamps = [], unseen = [], floor = null, fog = null, edges = 0, transparent = false } = parts;
  const { light, camera, width, height } = parts;
  const scene = {
    instances,
    tree: instanceTree(instances),
    lights: new LightTree(instances, lamps, unseen),
    ...{ light, floor, fog, edges, transparent, camera, width, height },
    glassy: instances.some(({ shape }) => shape.glassy),
    seen: null as unknown as TraceScene,
  };
  scene.seen = parts.groundAlone ? { ...scene, instances: [], tree: instanceTree([]) } : scene;
  return scene;
}

const traced = new WeakMap<DrawInstance, Map<string, TraceInstance | null>>();

/**
 * What of a draw list can be traced; the same instance for the same one of the list.
 *
 * @param glow – multiplies every swatch's emission
 * @param tint – linear, multiplies its colour
 */
export function traceInstances(list: DrawList, glow: number, tint: Rgb = [1, 1, 1]): TraceInstance[] {
  const key = [glow, ...tint].join();
  return list.flatMap((i) => {
    let byGlow = traced.get(i);
    if (!byGlow) traced.set(i, (byGlow = new Map()));
    let instance = byGlow.get(key);
    if (instance === undefined) {
      const { geometry, palette, matrix } = i;
      // Terrain cubes are traced once they can be painted.
      instance =
        geometry.kind === 'grid' ? traceInstance(geometry.grid, surfacesOf(palette, glow, tint), matrix) : null;
      byGlow.set(key, instance);
    }
    return instance ?? [];
  });
}

/** The pose that a shot shows. */
export function shotPose(project: Project, shot: Shot): Pose {
  const clip = find(project.clips, shot.clip);
  return clip ? sampleClip(clip, project.rig, clipTime(clip, shot.time)) : REST_POSE;
}

/**
 * The project as a shot shows it: in its colourway, with sets of alternates wearing what the clip says at its moment; of a scene
 * all clips gone on by the time of the shot, where that shows none itself.
 */
export function shotProject(project: Project, shot: Shot): Project {
  const clip = find(project.clips, shot.clip);
  const dressed = inColourway(project, shot.colourway);
  if (shot.scene !== null && !clip) return movedScene(dressed, shot.scene, shot.time);
  return withAlternatesAt(dressed, clip ?? null, clip ? clipTime(clip, shot.time) : 0);
}

/** What a view draws of a shot: what stands there without helpers, its light, and how high its ground lies. */
export function shotDrawing(
  whole: Project,
  shot: Shot,
): { list: DrawList; light: TraceLight; lamps: TraceLamp[]; floor: number } {
  const project = withoutHelpers(shotProject(whole, shot)),
    scene = find(project.scenes, shot.scene);
  const seen = (pose: Pose): DrawList =>
    gather(project, scene ? { of: 'scene', scene: scene.id } : { of: 'rig', pose });
  const low = seen(REST_POSE).reduce((y, i) => Math.min(y, instanceExtent(i)?.lo[1] ?? y), 0);
  return {
    list: seen(shotPose(whole, shot)),
    light: traceLight(shot.light, skyPicture(find(whole.blobs, shot.light.sky.picture))),
    lamps: scene ? shotLamps(project, scene.id, shot.light) : [],
    floor: Math.round(low * 1000) / 1000,
  };
}

/**
 * The scene of a shot, in its colourway, at the shot's own size unless another is given. The floor lies at the lowest cube of
 * the rest pose. Helper swatches are left out; those that glow give their light all the same.
 *
 * @param groundAlone – the eye sees nothing but the ground, with all shadows on it
 */
export function traceSceneOf(
  whole: Project,
  shot: Shot,
  size: readonly [number, number] = shot.output.size,
  groundAlone = false,
): TraceScene {
  const { light, stage, camera } = shot;
  const dressed = shotProject(whole, shot);
  const project = withoutHelpers(dressed);
  const scene = find(project.scenes, shot.scene);
  const tint = hexToLinear(light.glow.tint);
  const at = (of: Project, pose: Pose): TraceInstance[] =>
    traceInstances(
      gather(of, scene ? { of: 'scene', scene: scene.id } : { of: 'rig', pose }),
      light.glow.strength,
      tint,
    );
  const low = at(project, REST_POSE).reduce((y, i) => Math.min(y, i.lo[1]), 0),
    y = Math.round(low * 1000) / 1000;
  const metre = 1 / project.metresPerUnit;
  const pose = shotPose(whole, shot);
  const instances = at(project, pose);
  const hidden = onlyHiddenLamps(dressed);
  const away = length(sub(camera.eye, camera.target));
  return traceScene({
    instances,
    lamps: scene ? shotLamps(project, scene.id, light) : [],
    unseen: hidden ? at(hidden, pose) : [],
    light: traceLight(light, skyPicture(find(whole.blobs, light.sky.picture))),
    floor: traceFloor(stage, y, { fade: [away * 2, away * 9], metre, ...backdrop(instances, camera, away) }),
    fog: fogOf(light, y, metre),
    edges: stage.edges * 0.5,
    transparent: shot.output.transparent,
    groundAlone,
    camera: traceCamera(camera, size[0], size[1], project.metresPerUnit),
    width: size[0],
    height: size[1],
  });
}

/** A backdrop bends up behind everything, seen from the camera. */
function backdrop(
  instances: readonly TraceInstance[],
  { eye, target }: Shot['camera'],
  away: number,
): Pick<TraceFloor, 'back' | 'from' | 'bend'> {
  const level: Vec3 = [target[0] - eye[0], 0, target[2] - eye[2]];
  const back: Vec3 = length(level) < 1e-6 ? [0, 0, -1] : normalize(level);
  let behind = target[0] * back[0] + target[2] * back[2];
  for (const { lo, hi } of instances)
    for (const x of [lo[0], hi[0]])
      for (const z of [lo[2], hi[2]]) behind = Math.max(behind, x * back[0] + z * back[2]);
  return { back, from: behind + away * 0.1, bend: away * 0.6 };
}
