import { decodePng } from '@sphalerite/core/codec';
import { type SeriesSource, type Written, fileName } from '@sphalerite/core/files';
import type { Handlers } from './kinds';

/** Videos, which only browsers write: their encoders are not in Node. */
export const videoJobs = {
  async video({ kind, source, fps }, ctx) {
    const { BufferTarget, CanvasSource, Mp4OutputFormat, Output, QUALITY_HIGH, WebMOutputFormat } =
      await import('mediabunny');
    const target = new BufferTarget();
    const output = new Output({ format: kind === 'mp4' ? new Mp4OutputFormat() : new WebMOutputFormat(), target });
    const canvas = new OffscreenCanvas(...evenSize(source));
    const video = new CanvasSource(canvas, { codec: kind === 'mp4' ? 'avc' : 'vp9', bitrate: QUALITY_HIGH });
    output.addVideoTrack(video, { frameRate: fps });
    await output.start();
    const brush = canvas.getContext('2d')!;
    let time = 0;
    for (const [i, { png, seconds }] of source.frames.entries()) {
      const { width, height, rgba } = decodePng(png);
      // A video is nowhere see-through; what is clear is black.
      brush.fillRect(0, 0, canvas.width, canvas.height);
      const picture = await createImageBitmap(new ImageData(new Uint8ClampedArray(rgba), width, height));
      brush.drawImage(picture, 0, 0, canvas.width, canvas.height);
      picture.close();
      await video.add(time, seconds);
      time += seconds;
      ctx.report((i + 1) / source.frames.length);
      await ctx.breathe();
    }
    await output.finalize();
    const file = { name: `${fileName(source.name)}.${kind}`, bytes: new Uint8Array(target.buffer!) };
    return { files: [file], notes: [] } satisfies Written;
  },
} satisfies Partial<Handlers>;

/** Width and height of the frames, each at most one pixel less: videos want even ones. */
function evenSize({ frames }: SeriesSource): [number, number] {
  const { width, height } = decodePng(frames[0]!.png);
  return [Math.max(2, width - (width % 2)), Math.max(2, height - (height % 2))];
}
