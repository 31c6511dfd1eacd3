import * as z from 'zod';
import { GifWriter, decodePng, gifDelays } from '../../../codec';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';

/** Pictures that colours are chosen by. */
const LOOKED_AT = 6;

/** Pictures that play in any browser and chat. */
export const gifExporter: Exporter<'series', object> = {
  id: 'gif',
  name: 'Moving picture, GIF',
  noun: 'GIF',
  about: 'GIF: 255 colours in all, plays everywhere',
  takes: 'series',
  extensions: ['.gif'],
  type: 'image/gif',
  options: z.strictObject({}),
  plan: ({ frames }) => ({ counts: { frames: frames.length }, notes: [] }),
  async write({ name, frames, loop }, _, job) {
    const looked = Math.max(1, Math.ceil(frames.length / LOOKED_AT));
    const gif = new GifWriter(
      loop,
      frames.filter((_, i) => i % looked === 0).map((f) => decodePng(f.png).rgba),
    );
    const delays = gifDelays(frames.map((f) => f.seconds));
    for (const [i, frame] of frames.entries()) {
      const { width, height, rgba } = decodePng(frame.png);
      gif.add(width, height, rgba, delays[i]!);
      job.report((i + 1) / frames.length);
      await job.breathe();
    }
    return { files: [{ name: `${fileName(name)}.gif`, bytes: gif.bytes() }], notes: [] };
  },
};
