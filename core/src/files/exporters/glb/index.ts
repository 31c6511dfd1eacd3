import { WebIO } from '@gltf-transform/core';
import { KHRMaterialsEmissiveStrength, KHRMaterialsVariants } from '@gltf-transform/extensions';
import * as z from 'zod';
import type { Exporter, Written } from '../../exporter';
import { fileName } from '../../file-name';
import { type FileJob } from '../../job';
import { type Note, note } from '../../notes';
import { colliderOptions, meshOptions } from '../../ship/mesh-options';
import type { ShipModel } from '../../ship/ship-model';
import { GlbDocument } from './document';

const options = z.strictObject({
  clips: z
    .boolean()
    .default(true)
    .meta({ title: 'Clips', description: 'an animation for each clip that goes into files' }),
  colourways: z
    .boolean()
    .default(true)
    .meta({ title: 'Colourways', description: 'as material variants over the same meshes' }),
  ...meshOptions,
  ...colliderOptions,
});
type Options = z.infer<typeof options>;

/** Binary glTF 2.0, upright and in metres, with what it means of the trade's extensions for glow and variants. */
export const glbExporter: Exporter<'model', Options> = {
  id: 'glb',
  name: 'Game file',
  noun: 'GLB',
  about: 'GLB (glTF 2.0)',
  takes: 'model',
  extensions: ['.glb'],
  type: 'model/gltf-binary',
  options,
  plan: (model, { clips }) => ({
    counts: { ...model.counts, clips: clips ? model.counts.clips : 0 },
    notes: model.notes,
  }),
  async write(model, chosen, job): Promise<Written> {
    const { doc, notes } = await fill(model, chosen, job);
    const bytes = await new WebIO()
      .registerExtensions([KHRMaterialsEmissiveStrength, KHRMaterialsVariants])
      .writeBinary(doc);
    return {
      files: [{ name: `${fileName(model.name)}.glb`, bytes: bytes as Uint8Array<ArrayBuffer> }],
      notes: [...model.notes, ...notes],
    };
  },
};

async function fill(model: ShipModel, { clips, colourways }: Options, job: FileJob) {
  const glb = new GlbDocument(model, colourways);
  const notes: Note[] = [];
  glb.addNodes();
  glb.addColliders();
  for (const [i, clip] of clips ? model.clips.entries() : []) {
    job.report(i / model.clips.length);
    await job.breathe();
    const tracks = clip.tracks();
    if (tracks.length === 0) notes.push(note('clipEmpty', clip.name));
    else glb.addClip(clip.name, tracks);
  }
  return { doc: glb.doc, notes };
}
