import { DEMOS, READY_RIGS } from '@sphalerite/content';
import { transformPoint } from '@sphalerite/core/math';
import { type Clip, type Project, sideSuffix } from '@sphalerite/core/model';
import { QUIET_JOB, runExport } from '@sphalerite/core/files';
import { seededRandom } from '@sphalerite/core/math';
import { sampleClip } from '@sphalerite/core/motion';
import { worldMatrices } from '@sphalerite/core/rig';
import { AnimationMixer, type Object3D, Vector3 } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { describe, expect, it } from 'vitest';

/** Furthest that any joint of a played GLB is from where we put it, in cubes, at 60 random times. */
async function furthest(project: Project, clip: Clip): Promise<number> {
  const loader = new GLTFLoader();
  loader.register(() => ({ name: 'no pictures', loadTexture: () => Promise.resolve(null) }) as never);
  const order = { exporter: 'glb', subject: { of: 'rig' }, options: {} } as const;
  const result = (await runExport({ ...project, clips: [clip] }, order, QUIET_JOB)).files[0]!.bytes;
  const gltf = await loader.parseAsync(Uint8Array.from(result).buffer, '');
  const nodes = new Map<string, Object3D>();
  gltf.scene.traverse((o) => {
    const name = String(o.userData['name'] ?? o.name);
    // A part bears the name of its bone as a rule; the bone is above it.
    if (!nodes.has(name)) nodes.set(name, o);
  });
  const mixer = new AnimationMixer(gltf.scene);
  mixer.clipAction(gltf.animations[0]!).play();
  const random = seededRandom(60);
  let worst = 0;
  for (let k = 0; k < 60; k++) {
    const time = k === 0 ? 0 : random() * (clip.length - 1);
    mixer.setTime(time / 1200);
    gltf.scene.updateMatrixWorld(true);
    const ours = worldMatrices(project.rig, sampleClip(clip, project.rig, time));
    for (const b of project.rig.bones) {
      const node = nodes.get(b.name + sideSuffix(b.side));
      if (!node) continue;
      const theirs = new Vector3().setFromMatrixPosition(node.matrixWorld).divideScalar(project.metresPerUnit),
        want = transformPoint(ours.get(b.id)!, [0, 0, 0]);
      worst = Math.max(worst, Math.hypot(theirs.x - want[0], theirs.y - want[1], theirs.z - want[2]));
    }
  }
  return worst;
}

describe.each(
  Object.entries({ ...DEMOS, ...READY_RIGS }).flatMap(([name, build]) => {
    const project = build();
    return project.clips.map((clip) => ({ name: `${name}: ${clip.name}`, project, clip }));
  }),
)('$name', ({ project, clip }) => {
  it('is played by three as we evaluate it, to a thousandth of a cube at every joint', async () => {
    expect(await furthest(project, clip)).toBeLessThan(1e-3);
  });
});
