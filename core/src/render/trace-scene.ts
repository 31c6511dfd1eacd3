import { length, sub } from '../math';
import { type Project, type Shot, find, inColourway, withoutHelpers } from '../model';
import { clipTime, sampleClip, withAlternatesAt } from '../motion';
import { type Pose, REST_POSE } from '../rig';
import { type DrawInstance, type DrawList, gather, lampsOf } from '../scene';
import { type InstanceTree, instanceTree } from './instance-tree';
import { type TraceLamp, traceLamp } from './lamps';
import { type TraceCamera, traceCamera } from './lens';
import { LightTree } from './light-tree';
import { surfacesOf } from './material';
import { type TraceInstance, traceInstance } from './shape';
import { type TraceLight, traceLight } from './surroundings';

/** All that a picture is computed from. */
export interface TraceScene {
  readonly instances: readonly TraceInstance[];
  readonly tree: InstanceTree;
  readonly lights: LightTree;
  readonly light: TraceLight;
  readonly camera: TraceCamera;
  readonly width: number;
  readonly height: number;
}

/** Instances and lamps with what is derived from them. */
export const traceBodies = (
  instances: readonly TraceInstance[],
  lamps: readonly TraceLamp[] = [],
): Pick<TraceScene, 'instances' | 'tree' | 'lights'> => ({
  instances,
  tree: instanceTree(instances),
  lights: new LightTree(instances, lamps),
});

const traced = new WeakMap<DrawInstance, Map<number, TraceInstance | null>>();

/**
 * What of a draw list can be traced; the same instance for the same one of the list.
 *
 * @param glow – multiplies every swatch's emission
 */
export function traceInstances(list: DrawList, glow: number): TraceInstance[] {
  return list.flatMap((i) => {
    let byGlow = traced.get(i);
    if (!byGlow) traced.set(i, (byGlow = new Map()));
    let instance = byGlow.get(glow);
    if (instance === undefined) {
      const { geometry, palette, matrix } = i;
      // Terrain cubes are traced once they can be painted.
      instance = geometry.kind === 'grid' ? traceInstance(geometry.grid, surfacesOf(palette, glow), matrix) : null;
      byGlow.set(glow, instance);
    }
    return instance ?? [];
  });
}

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
  const scene = find(project.scenes, shot.scene);
  const at = (pose: Pose): TraceInstance[] =>
    traceInstances(gather(project, scene ? { of: 'scene', scene: scene.id } : { of: 'rig', pose }), shot.light.glow);
  const floor = at(REST_POSE).reduce((y, i) => Math.min(y, i.lo[1]), 0);
  const lamps = scene ? lampsOf(project, scene.id).map((l) => traceLamp(l, project.metresPerUnit)) : [];
  const away = length(sub(shot.camera.eye, shot.camera.target));
  return {
    ...traceBodies(at(shotPose(project, shot)), lamps),
    light: traceLight(shot.light, Math.round(floor * 1000) / 1000, [away * 2, away * 9]),
    camera: traceCamera(shot.camera, size[0], size[1]),
    width: size[0],
    height: size[1],
  };
}
