import { DataTexture, FloatType, RGBAFormat } from 'three';
import { EXRExporter } from 'three/examples/jsm/exporters/EXRExporter.js';
import * as z from 'zod';
import { filmLayers } from '../../../render';
import type { Exporter, WrittenFile } from '../../exporter';
import { fileName } from '../../file-name';

const encode = async (
  name: string,
  width: number,
  height: number,
  rgba: Float32Array<ArrayBuffer>,
): Promise<WrittenFile> => {
  const texture = new DataTexture(flipped(rgba, width, height), width, height, RGBAFormat, FloatType);
  return { name: `${name}.exr`, bytes: new Uint8Array(await new EXRExporter().parse(texture, { type: FloatType })) };
};
/** Textures begin at the bottom. */
function flipped(rgba: Float32Array<ArrayBuffer>, width: number, height: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(rgba.length),
    row = width * 4;
  for (let y = 0; y < height; y++) out.set(rgba.subarray(y * row, (y + 1) * row), (height - 1 - y) * row);
  return out;
}

/** The light itself, before any grading. */
export const exrExporter: Exporter<'picture', { passes: boolean }> = {
  id: 'exr',
  name: 'Light, EXR',
  noun: 'light as EXR',
  about: 'EXR: linear light before grading, and what the eye met',
  takes: 'picture',
  extensions: ['.exr'],
  type: 'image/x-exr',
  options: z.strictObject({
    passes: z
      .boolean()
      .default(false)
      .meta({ title: 'Passes', description: 'colour, normal and depth as files beside it' }),
  }),
  plan: ({ film }) => ({ counts: { width: film.width, height: film.height }, notes: [] }),
  async write({ name, film, transparent }, { passes }) {
    const { width, height } = film,
      safe = fileName(name);
    const layers = filmLayers(film, transparent);
    const files = [await encode(safe, width, height, layers.light)];
    if (passes)
      for (const pass of ['albedo', 'normal', 'depth'] as const) {
        const layer = layers[pass];
        if (layer) files.push(await encode(`${safe}.${pass}`, width, height, layer));
      }
    return { files, notes: [] };
  },
};
