import { mkdirSync, writeFileSync } from 'node:fs';
import { TICKS } from '@sphalerite/core/model';
import { clipPictures } from '@sphalerite/core/render';
import gifenc from 'gifenc';
import { DEMOS, READY_RIGS } from '.';

const EDGE = 200,
  FPS = 12;
/** The page that the pictures stand on. */
const PAPER = [242, 239, 233];

/** Writes an animated picture of every clip of the demo projects and ready rigs into a folder. */
const folder = process.argv[2] ?? 'docs/clips';
mkdirSync(folder, { recursive: true });
for (const [name, build] of Object.entries({ ...DEMOS, ...READY_RIGS })) {
  const project = build();
  for (const clip of project.clips) {
    const gif = gifenc.GIFEncoder();
    for (const pixels of clipPictures(project, clip, EDGE, TICKS / FPS)) {
      for (let i = 0; i < pixels.length; i += 4)
        for (let c = 0; c < 3; c++)
          pixels[i + c] = Math.round(PAPER[c]! + ((pixels[i + c]! - PAPER[c]!) * pixels[i + 3]!) / 255);
      const palette = gifenc.quantize(pixels, 60);
      gif.writeFrame(gifenc.applyPalette(pixels, palette), EDGE, EDGE, { palette, delay: 1000 / FPS });
    }
    gif.finish();
    const file = `${folder}/${name}-${clip.name.toLowerCase().replaceAll(' ', '-')}.gif`;
    writeFileSync(file, gif.bytes());
    console.log(`${file}  ${Math.ceil(gif.bytes().length / 1024)} KB`);
  }
}
