import { Format } from '@gltf-transform/core';
import { strToU8 } from 'fflate';
import type { Exporter, Written, WrittenFile } from '../../exporter';
import { fileName } from '../../file-name';
import { type GltfOptions, filled, gltfOptions } from '../../gltf/write';
import { countsOf } from '../../ship/ship-model';
import { distinct } from '../../ship/ship-names';

/** glTF 2.0 as text, with its numbers and pictures in files beside it. */
export const gltfExporter: Exporter<'model', GltfOptions> = {
  id: 'gltf',
  name: 'Game file, apart',
  noun: 'glTF with its files',
  about: 'glTF + BIN + PNG',
  takes: 'model',
  extensions: ['.gltf', '.bin', '.png'],
  type: 'model/gltf+json',
  options: gltfOptions,
  plan: (model) => ({ counts: { ...countsOf(model) }, notes: model.notes }),
  async write(model, options, job): Promise<Written> {
    const { glb, io, notes } = await filled(model, options, job);
    const stem = fileName(model.name);
    const textures = glb.doc.getRoot().listTextures();
    const names = distinct(textures.map((t) => `${stem}-${fileName(t.getName())}`));
    textures.forEach((t, i) => t.setURI(`${names[i]!}.${t.getMimeType().split('/')[1]!.replace('jpeg', 'jpg')}`));
    const { json, resources } = await io.writeJSON(glb.doc, { format: Format.GLTF, basename: stem });
    const text = strToU8(JSON.stringify(json)) as Uint8Array<ArrayBuffer>;
    return {
      files: [
        { name: `${stem}.gltf`, bytes: text },
        ...Object.entries(resources).map(([name, bytes]): WrittenFile => ({
          name,
          bytes: bytes as Uint8Array<ArrayBuffer>,
        })),
      ],
      notes: [...model.notes, ...notes],
    };
  },
};
