import '@babylonjs/loaders/glTF/index.js';
import { NullEngine } from '@babylonjs/core/Engines/nullEngine.js';
import { LoadAssetContainerAsync } from '@babylonjs/core/Loading/sceneLoader.js';
import { Logger } from '@babylonjs/core/Misc/logger.js';
import { Scene } from '@babylonjs/core/scene.js';

/** What another engine finds in a GLB, without a screen. */
export async function readWithBabylon(bytes: Uint8Array): Promise<{
  names: string[];
  triangles: number;
  materials: string[];
  clips: string[];
  low: number;
  high: number;
}> {
  Logger.LogLevels = Logger.ErrorLogLevel;
  const scene = new Scene(new NullEngine());
  const data = `data:application/octet-stream;base64,${Buffer.from(bytes).toString('base64')}`;
  const found = await LoadAssetContainerAsync(data, scene, { pluginExtension: '.glb' });
  found.addAllToScene();
  const meshes = found.meshes.filter((m) => m.getTotalVertices() > 0);
  let low = Infinity,
    high = -Infinity,
    triangles = 0;
  for (const m of meshes) {
    m.computeWorldMatrix(true);
    const { minimumWorld, maximumWorld } = m.getBoundingInfo().boundingBox;
    low = Math.min(low, minimumWorld.y);
    high = Math.max(high, maximumWorld.y);
    triangles += m.getTotalIndices() / 3;
  }
  const out = {
    names: [...found.transformNodes, ...found.meshes].map((n) => n.name),
    triangles,
    materials: found.materials.map((m) => m.name).sort(),
    clips: found.animationGroups.map((a) => a.name),
    low,
    high,
  };
  scene.dispose();
  return out;
}
