import { exrRows, pngStrip } from '@sphalerite/core/codec';
import {
  coarseOf,
  developDeepSteps,
  developSteps,
  filmLayers,
  spreadSteps,
  traceEach,
  traceSceneOf,
} from '@sphalerite/core/render';
import { pieceSteps } from '@sphalerite/core/takes';
import { drive } from './drive';
import type { Handlers } from './kinds';

/** Pictures that are too large to be kept as a whole, piece by piece. */
export const largeJobs = {
  async tiles({ project, shot, tiles }, ctx) {
    const { size, samples, noise } = shot.output;
    const scene = traceSceneOf(ctx.bricks.openProject(project), shot, size);
    let done = 0;
    for (const traced of traceEach(scene, tiles, { samples, noise })) {
      if (traced) ctx.report(++done / tiles.length, traced);
      await ctx.breathe();
    }
    return null;
  },

  piece: ({ film, camera, piece, drawn }, ctx) => drive(pieceSteps(film, camera, piece, drawn), ctx),

  coarse: ({ piece, grade, height }) => Promise.resolve(coarseOf(piece, grade, height)),

  spread: ({ squares, height }, ctx) => drive(spreadSteps(squares, height), ctx),

  async strip({ film, columns, as, place, ...how }, ctx) {
    const [left, right] = columns,
      { width } = film;
    const pixels = await drive<Uint8Array | Uint16Array>(
      as === 'png16' ? developDeepSteps(film, how) : developSteps(film, how),
      ctx,
    );
    const cut = right - left === width ? pixels : between(pixels, width, left, right);
    if (as === 'rgba') return { bytes: (cut as Uint8Array<ArrayBuffer>).slice(), sum: 0, length: cut.length };
    return pngStrip(cut, right - left, place);
  },

  layers({ film, transparent, rows, layers }) {
    const made = filmLayers(film, transparent, rows);
    return Promise.resolve(layers.map((l) => exrRows(film.width, made[l]!, rows[0])));
  },

  async written({ pixels, width, height, type }) {
    const canvas = new OffscreenCanvas(width, height),
      data = new Uint8ClampedArray(await pixels.arrayBuffer());
    canvas.getContext('2d')!.putImageData(new ImageData(data, width, height), 0, 0);
    return canvas.convertToBlob({ type, quality: 0.92 });
  },
} satisfies Partial<Handlers>;

/** Of whole rows of pixels the columns from one to before another. */
function between(
  pixels: Uint8Array | Uint16Array,
  width: number,
  left: number,
  right: number,
): Uint8Array | Uint16Array {
  const rows = pixels.length / 4 / width,
    wide = right - left;
  const out = pixels instanceof Uint16Array ? new Uint16Array(rows * wide * 4) : new Uint8Array(rows * wide * 4);
  for (let y = 0; y < rows; y++)
    out.set(pixels.subarray((y * width + left) * 4, (y * width + right) * 4), y * wide * 4);
  return out;
}
