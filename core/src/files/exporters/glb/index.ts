import type { Exporter, Written } from '../../exporter';
import { fileName } from '../../file-name';
import { type GltfOptions, filled, gltfOptions } from '../../gltf/write';
import { countsOf } from '../../ship/ship-model';

/** Binary glTF 2.0, with what it means of the trade's extensions for glow, variants and packing. */
export const glbExporter: Exporter<'model', GltfOptions> = {
  id: 'glb',
  name: 'Game file',
  noun: 'GLB',
  about: 'GLB (glTF 2.0)',
  takes: 'model',
  extensions: ['.glb'],
  type: 'model/gltf-binary',
  options: gltfOptions,
  plan: (model) => ({ counts: { ...countsOf(model) }, notes: model.notes }),
  async write(model, options, job): Promise<Written> {
    const { glb, io, notes } = await filled(model, options, job);
    const bytes = (await io.writeBinary(glb.doc)) as Uint8Array<ArrayBuffer>;
    return { files: [{ name: `${fileName(model.name)}.glb`, bytes }], notes: [...model.notes, ...notes] };
  },
};
