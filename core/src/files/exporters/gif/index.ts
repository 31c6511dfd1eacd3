import * as z from 'zod';
import { GifWriter, decodePng, gifDelays } from '../../../codec';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';

/** Pictures that play in any browser and chat. */
export const gifExporter: Exporter<'series', object> = {
  id: 'gif',
  name: 'Moving picture, GIF',
  noun: 'GIF',
  about: 'GIF: 256 colours a frame, plays everywhere',
  takes: 'series',
  extensions: ['.gif'],
  type: 'image/gif',
  options: z.strictObject({}),
  plan: ({ frames }) => ({ counts: { frames: frames.length }, notes: [] }),
  async write({ name, frames, loop }, _, job) {
    const gif = new GifWriter(loop);
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
