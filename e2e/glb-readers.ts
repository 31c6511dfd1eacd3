import { Box3, type Mesh, type Object3D } from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import validator from 'gltf-validator';

export interface Report {
  issues: { messages: { code: string; message: string; pointer: string }[] };
}
/** What the reference validator of the standard finds, hints included. */
export const validate = (bytes: Uint8Array): Promise<Report> =>
  validator.validateBytes(new Uint8Array(bytes), { maxIssues: 100 }) as Promise<Report>;

export interface GlbJson {
  readonly materials: {
    name: string;
    alphaMode?: string;
    extensions?: { KHR_materials_emissive_strength?: { emissiveStrength: number } };
  }[];
  readonly meshes: {
    name: string;
    primitives: {
      material: number;
      indices: number;
      attributes: { POSITION: number };
      extensions?: { KHR_materials_variants?: { mappings: { material: number; variants: number[] }[] } };
    }[];
  }[];
  readonly nodes: { name: string; mesh?: number; extras?: { collider?: string; moves?: string } }[];
  readonly skins?: { joints: number[] }[];
  readonly accessors: { count: number; min?: number[]; max?: number[] }[];
  readonly extensions?: { KHR_materials_variants?: { variants: { name: string }[] } };
}
/** The JSON chunk of a GLB, read byte by byte as the standard lays it out. */
export function glbJson(bytes: Uint8Array): GlbJson {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0, true) !== 0x46546c67 || view.getUint32(16, true) !== 0x4e4f534a) throw new Error('not a GLB');
  return JSON.parse(new TextDecoder().decode(bytes.subarray(20, 20 + view.getUint32(12, true)))) as GlbJson;
}

/** What three's loader reads. Pictures are left out: there is no canvas here, and they are judged elsewhere. */
export async function readWithThree(bytes: Uint8Array): Promise<{
  parents: Record<string, string[]>;
  meshes: number;
  triangles: number;
  vertices: number;
  low: number;
  high: number;
  clips: { name: string; seconds: number; tracks: number }[];
}> {
  const loader = new GLTFLoader();
  loader.register(() => ({ name: 'no pictures', loadTexture: () => Promise.resolve(null) }) as never);
  const gltf = await loader.parseAsync(Uint8Array.from(bytes).buffer, '');
  const nameOf = (o: Object3D | null): string => (o ? String(o.userData['name'] ?? o.name) : '');
  const parents: Record<string, string[]> = {};
  let meshes = 0,
    triangles = 0,
    vertices = 0;
  gltf.scene.traverse((o) => {
    (parents[nameOf(o)] ??= []).push(nameOf(o.parent));
    const m = o as Mesh;
    if (!m.isMesh) return;
    meshes++;
    triangles += m.geometry.index!.count / 3;
    vertices += m.geometry.attributes['position']!.count;
  });
  gltf.scene.updateMatrixWorld(true);
  const box = new Box3().setFromObject(gltf.scene, true);
  return {
    parents,
    meshes,
    triangles,
    vertices,
    low: box.min.y,
    high: box.max.y,
    clips: gltf.animations.map((a) => ({ name: a.name, seconds: a.duration, tracks: a.tracks.length })),
  };
}
