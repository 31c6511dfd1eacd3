import { type Pixels, decodePng } from '@sphalerite/core/codec';
import { encodePng } from '@sphalerite/core/files';
import { heightOptions, heightSteps, pictureOptions, pictureSteps } from '@sphalerite/core/intake';
import { finish } from '@sphalerite/core/math';
import { boathouse } from './scenes';
import { type Row, SECOND, median, ms } from './rows';
import { textbookGreedy } from './textbook-greedy';

const SIZE = 4096;

/** A picture of hills and lights, in many colours. */
function hills(): Pixels {
  const rgba = new Uint8Array(SIZE * SIZE * 4);
  for (let y = 0; y < SIZE; y++)
    for (let x = 0; x < SIZE; x++) {
      const at = (y * SIZE + x) * 4,
        v = Math.sin(x / 211) * Math.cos(y / 173);
      rgba[at] = 128 + 90 * v;
      rgba[at + 1] = 110 + 60 * Math.sin(y / 301);
      rgba[at + 2] = 90 + 80 * Math.cos((x + y) / 419);
      rgba[at + 3] = 255;
    }
  return { width: SIZE, height: SIZE, rgba, indexed: null };
}

/** Large pictures made small, and made anew when a wish changes. */
export function intakeRows(): Row[] {
  const house = boathouse();
  const second = 5 * median(5, () => void textbookGreedy(house.readBox(house.bounds), house.bounds));
  const picture = hills();
  const bytes = encodePng(SIZE, SIZE, picture.rgba);
  const wish = (most: number) => pictureOptions.parse({ width: 256, most });
  // Copies, so that nothing is known of them from the time before.
  const whole = median(3, () => void finish(pictureSteps({ ...picture }, wish(32), null)));
  let most = 20;
  const again = median(5, () => void finish(pictureSteps(picture, wish(++most), null)));
  const heights = heightOptions.parse({ width: 256, height: 60 });
  const relief = median(3, () => void finish(heightSteps({ ...picture }, null, heights, null)));
  const decoding = median(3, () => void decodePng(bytes));
  const row = (name: string, time: number, goal: number): Row => ({
    name,
    ours: ms(time),
    theirs: `${ms(goal * second)}, ${goal} × ${SECOND}`,
    ratio: time / (goal * second),
    goal: '≤ 1',
    ok: time <= goal * second,
  });
  return [
    row('4,096² picture to 256 cubes, 32 colours', whole, 1.5),
    row('the same after a change of colours', again, 0.15),
    row('4,096² height map to 256 cubes', relief, 1.5),
    { ...row('4,096² PNG decoded', decoding, 1.5), goal: '–', ok: true },
  ];
}
