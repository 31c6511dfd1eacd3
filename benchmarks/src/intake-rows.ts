import { type MeshScene, type Pixels, decodePng } from '@sphalerite/core/codec';
import { encodePng, projectOfBodies } from '@sphalerite/core/files';
import { generatorOf } from '@sphalerite/core/generate';
import {
  heightOptions,
  heightSteps,
  meshOptions,
  meshSteps,
  pictureOptions,
  pictureSteps,
} from '@sphalerite/core/intake';
import { finish } from '@sphalerite/core/math';
import { projectThumbnail } from '@sphalerite/core/render';
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

/** A ball of 100,000 triangles in as many colours; or all of it that is above a plane. */
function ball(share: number): MeshScene {
  const n = 320,
    m = Math.round((n / 2) * share),
    positions = new Float64Array((n + 1) * (m + 1) * 3),
    triangles = new Uint32Array(n * m * 6);
  for (let j = 0, v = 0; j <= m; j++)
    for (let i = 0; i <= n; i++, v += 3) {
      const [a, b] = [(2 * Math.PI * (i % n)) / n, (2 * Math.PI * j) / n];
      positions.set([Math.sin(b) * Math.cos(a), Math.cos(b), Math.sin(b) * Math.sin(a)], v);
    }
  for (let j = 0, t = 0; j < m; j++)
    for (let i = 0; i < n; i++, t += 6) {
      const a = j * (n + 1) + i,
        c = a + n + 1;
      triangles.set([a, a + 1, c + 1, a, c + 1, c], t);
    }
  const colours = Uint8Array.from({ length: (positions.length / 3) * 4 }, (_, i) =>
    i % 4 === 3 ? 255 : (i * 7) % 256,
  );
  const rest = { t: [0, 0, 0], q: [0, 0, 0, 1], s: [1, 1, 1] } as const;
  return {
    nodes: [
      {
        name: 'ball',
        parent: null,
        rest,
        shapes: [{ positions, triangles, uvs: null, colours, surface: -1 }],
        role: 'node',
      },
    ],
    ...{ surfaces: [], pictures: [], clips: [], metres: false, pivots: false, missing: [] },
  };
}
const BALL = ball(1),
  BOWL = ball(0.7);

/** Pixels of a picture of what would be made up. */
const SMALL = 96;
/** Ten of one kind by their seeds, as small pictures. */
function tenOf(id: string): void {
  const g = generatorOf(id)!;
  for (let seed = 1; seed <= 10; seed++) {
    const { parts, swatches } = g.make(g.options.parse({ seed }));
    const project = projectOfBodies(g.name, parts, { id: 'colours', name: g.name, swatches });
    encodePng(SMALL, SMALL, projectThumbnail(project, SMALL));
  }
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
  const solid = median(3, () => void finish(meshSteps(BALL, [], meshOptions.parse({ height: 254 }), null, 0.05)));
  // The page has two workers at them.
  const ten = median(1, () => tenOf('tree')) / 2;
  const holed = median(1, () => void finish(meshSteps(BOWL, [], meshOptions.parse({ height: 180 }), null, 0.05)));
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
    row('100,000 triangles, closed, to 256³: solid, surface, colour', solid, 3),
    row('the same with a hole as wide as it is', holed, 15),
    row('ten trees by their seeds as pictures, on two workers', ten, 1),
    { ...row('4,096² PNG decoded', decoding, 1.5), goal: '–', ok: true },
  ];
}
