import { WebIO } from '@gltf-transform/core';
import {
  EXTMeshGPUInstancing,
  EXTMeshoptCompression,
  KHRLightsPunctual,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsVariants,
  KHRMeshQuantization,
} from '@gltf-transform/extensions';
import * as z from 'zod';
import type { FileJob } from '../job';
import { type Note, note } from '../notes';
import type { ShipModel } from '../ship/ship-model';
import { GlbDocument } from './document';

/** Options that a single file and one with files beside it share. */
export const gltfOptions = z.strictObject({
  packing: z.enum(['plain', 'quantized', 'meshopt']).default('plain').meta({
    title: 'Packing',
    description: 'plain numbers; half cubes as whole numbers, which lose nothing; or those packed again (meshopt)',
  }),
  instancing: z.boolean().default(false).meta({
    title: 'Instancing',
    description:
      'what stands many times is one node with a list of places (EXT_mesh_gpu_instancing); else nodes that share a mesh',
  }),
});
export type GltfOptions = z.infer<typeof gltfOptions>;

const EXTENSIONS = [
  EXTMeshGPUInstancing,
  KHRLightsPunctual,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsVariants,
  KHRMeshQuantization,
  EXTMeshoptCompression,
];

/** A model as a document with its clips, and what writes it. */
export async function filled(
  model: ShipModel,
  { packing, instancing }: GltfOptions,
  job: FileJob,
): Promise<{ glb: GlbDocument; io: WebIO; notes: Note[] }> {
  const glb = new GlbDocument(model, packing !== 'plain', instancing);
  const notes: Note[] = [];
  glb.addNodes();
  glb.addColliders();
  for (const [i, clip] of model.clips.entries()) {
    job.report(i / model.clips.length);
    await job.breathe();
    const tracks = clip.tracks();
    if (tracks.length === 0) notes.push(note('clipEmpty', clip.name));
    else glb.addClip(clip.name, tracks);
  }
  const io = new WebIO().registerExtensions(EXTENSIONS);
  if (packing === 'meshopt') {
    // Compiled when it is first asked for.
    const { MeshoptEncoder } = await import('meshoptimizer/encoder');
    await MeshoptEncoder.ready;
    io.registerDependencies({ 'meshopt.encoder': MeshoptEncoder });
    glb.doc
      .createExtension(EXTMeshoptCompression)
      .setRequired(true)
      .setEncoderOptions({ method: EXTMeshoptCompression.EncoderMethod.QUANTIZE });
  }
  return { glb, io, notes };
}
