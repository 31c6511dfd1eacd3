import type { Pixels } from '@sphalerite/core/codec';
import { encodePng, projectOfBodies } from '@sphalerite/core/files';
import { generatorOf } from '@sphalerite/core/generate';
import { pictureOptions, pictureSteps } from '@sphalerite/core/intake';
import { type Vec3, finish, mapVec } from '@sphalerite/core/math';
import {
  blobTypeOf,
  composite,
  type Id,
  makeBlob,
  makeCamera,
  makeGrade,
  makeLight,
  makeOutput,
  makeStage,
  must,
  type Project,
} from '@sphalerite/core/model';
import {
  addSceneEdit,
  addShotEdit,
  bringPartsEdit,
  keepingHow,
  mountPartEdit,
  placeEdit,
  renamePartEdit,
  repeatEdit,
  setMountEdit,
} from '@sphalerite/core/project';
import { INK as C, emberquaySwatches } from './emberquay-palette';
import { Maker, span, turn } from './maker';

/** What all else stands on. */
const GROUND = 'Bank';

const COLOURS: Readonly<Record<string, string>> = {
  o: '#6b4122',
  h: '#94602f',
  H: '#bd8a50',
  d: '#123735',
  g: '#1c544e',
  G: '#2a7a70',
  m: '#f4ecdc',
  s: '#52626f',
  y: '#e3a127',
  w: '#4ba592',
  l: '#557a3c',
  L: '#7f9f4e',
  D: '#38562f',
  b: '#4a2f1e',
  B: '#6f4a2f',
};

/** The board at the ferry crossing: a heron that stands in the water, by night. */
const BOARD = [
  'ohhhhhhhhhhhhhhhhhhhhhho',
  'hHHHHHHHHHHHHHHHHHHHHHHh',
  'hHddddddddddddddddddddHh',
  'hHddddddmmddddddddyyddHh',
  'hHdddddmmsmdddddddyyddHh',
  'hHddyyymmdddddddddddddHh',
  'hHdddddmmdddddddddddddHh',
  'hHdddddmmdddddddddddddHh',
  'hHddddddmmssmmmmddddddHh',
  'hHggggggmmmmmmmssgggggHh',
  'hHgggggggmmmssssggggggHh',
  'hHggggggggggsgggggggggHh',
  'hHggggggggggsgggggggggHh',
  'hHwGGwwGGGGGsGwwGGGwwGHh',
  'hHGwwGGwwGGGsGGGwwGGGwHh',
  'hHHHHHHHHHHHHHHHHHHHHHHh',
  'ohhhhhhhhhhhhhhhhhhhhhho',
];

/** Reeds with their brown heads, some bent by the wind. */
const REEDS = [
  '......b.........b...',
  '......b...........B.',
  '.....bB....b......b.',
  '..b..bB....b.....bB.',
  '..b..b....bB.....bB.',
  '.bB..L....bB.....b..',
  '.bB..L..L.b...L..L..',
  '.b...l..L.L...L..L..',
  '..L..l..L.L..L..L...',
  '..L..l..l.L..L..L.L.',
  '..l.L.l.l.L..l..l.L.',
  '..l.L.l.l.l..l.L..L.',
  '..l.L.l.l.l.l..L.L..',
  '...lL.D.l.l.l..l.L..',
  '...ll.D.lL..l.l..l..',
  'L..ll.D.lL.lL.l.l...',
  '.L.Dl.lDlL.lL.l.l..L',
  '.l.Dl.lDDl.lDDl.l.L.',
  '..lDDDlDDlDlDDlDlDL.',
  '..DDDDDDDDDDDDDDDDD.',
];

function drawn(rows: readonly string[]): Pixels {
  const width = Math.max(...rows.map((r) => r.length));
  const rgba = new Uint8ClampedArray(width * rows.length * 4);
  rows.forEach((row, y) =>
    [...row].forEach((c, x) => {
      const hex = COLOURS[c];
      if (hex) rgba.set([1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)).concat(255), (y * width + x) * 4);
    }),
  );
  return { width, height: rows.length, rgba } as unknown as Pixels;
}

/** The bank below the ferry: ground, rocks, trees, reeds and a sign, each made up of a seed or of a picture that comes along. */
export function buildSedgeBank(): Project {
  const bank = new Bank();
  const ground = bank.grow('terrain', GROUND, {
    ...{ seed: 14, width: 112, depth: 84, height: 14, scale: 56, rough: 0.3, erosion: 0.6, strata: 0.1 },
    ...{ grass: '#4f7148', rock: '#5b6168' },
  });
  bank.stand(ground, [0, 0, 0]);
  const top = bank.heights(ground);
  const on = (x: number, z: number, sunk = 1): Vec3 => [x, top(x, z) - sunk, z];
  const oak = bank.grow('tree', 'Oak', { seed: 6, height: 46, crown: 34, trunk: 6, wind: 0.1, leaf: '#3f6f4c' });
  bank.stand(oak, on(-34, -22));
  const willow = bank.grow('tree', 'Willow', {
    ...{ seed: 11, height: 48, crown: 28, trunk: 4, leaves: 0.5, wind: 0.3, leaf: '#7d8f45', bark: '#5a4630' },
  });
  bank.stand(willow, on(34, -26));
  const bare = bank.grow('tree', 'Bare tree', { seed: 3, height: 30, crown: 24, trunk: 4, shape: 'bare' });
  bank.stand(bare, on(44, 22));
  const rocks: readonly [string, number, number, number, number][] = [
    ['Boulder', 4, 22, -10, 8],
    ['Stone', 9, 12, 12, 26],
    ['Low stone', 17, 15, -44, 24],
  ];
  for (const [name, seed, width, x, z] of rocks)
    bank.stand(
      bank.grow('rock', name, { seed, width, height: Math.round(width * 0.62), rock: '#6d7076', moss: 0.4 }),
      on(x, z, 2),
      seed % 4,
    );
  for (const [i, [x, z, quarters]] of (
    [
      [24, 8, 0],
      [24, 8, 90],
      [-24, 20, 30],
      [-24, 20, 115],
    ] as const
  ).entries())
    bank.stand(bank.picture('reeds.png', `Reeds ${i + 1}`, REEDS, {}), on(x, z), quarters);
  const [x, z] = [-2, -24];
  const foot = top(x, z);
  bank.stand(bank.picture('ferry-sign.png', 'Sign', BOARD, { thick: 2 }), [x, foot + 15, z]);
  const posts = bank.m.part('Posts', GROUND, span(-12, 0, -2, 11, 30, 1));
  posts.both(C.bark, span(7, 0, -1, 9, 29, 0));
  posts.shade(C.barkDark, C.bark, C.barkLight, 0.15);
  const made = bank.m.project.parts.at(-1)!;
  bank.stand(made.id, [x, foot - 1, z - 2]);
  bank.m.apply(addShotEdit, {
    name: 'Low sun',
    shot: {
      camera: makeCamera({ kind: 'perspective', eye: [62, 52, 118], target: [0, 14, -4], fov: 36, height: 90 }),
      light: makeLight({
        sun: { azimuth: 52, elevation: 24, size: 3, colour: '#ffdcae', strength: 3 },
        sky: { zenith: '#6f94b8', horizon: '#e8d6bd', strength: 0.9 },
        glow: { strength: 1 },
      }),
      stage: makeStage({ ground: { kind: 'colour', colour: '#5d6a6b' } }),
      clip: null,
      time: 0,
      grade: makeGrade({ exposure: 1 }),
      output: makeOutput({ size: [720, 480], samples: 32 }),
    },
  });
  overgrown(bank.m, on);
  return bank.m.project;
}

/** The same bank a few years on, as a scene: linked copies of its trees, rocks and reeds, most of them scattered over the ground. */
function overgrown(m: Maker, on: (x: number, z: number) => Vec3): void {
  m.apply(addSceneEdit, { name: 'Overgrown' });
  const scene = m.project.scenes[0]!.id;
  const shows = (name: string) => ({
    kind: 'part' as const,
    part: m.project.parts.find((p) => p.name === name)!.id,
  });
  const put = (name: string, t: Vec3): Id => {
    m.apply(placeEdit, { scene, placements: [{ shows: shows(name), t }] });
    return m.project.scenes[0]!.placements.flat().at(-1)!.id;
  };
  const ground = put(GROUND, [0, 0, 0]);
  const scattered = (
    name: string,
    others: readonly string[],
    at: Vec3,
    count: number,
    apart: number,
    seed: number,
  ): void =>
    m.apply(repeatEdit, {
      scene,
      placement: put(name, at),
      wishes: {
        ...{ kind: 'scatter', count, area: [104, 78], apart, on: ground, off: [] },
        vary: { seed, turn: 180, sizes: [0.6, 1.15], lean: 4 },
        sources: others.map((o) => ({ shows: shows(o), weight: 1 })),
      },
    });
  scattered('Oak', ['Willow', 'Bare tree'], on(-34, -22), 7, 22, 5);
  scattered('Boulder', ['Stone', 'Low stone'], on(20, 6), 18, 9, 8);
  scattered('Reeds 1', ['Reeds 2'], on(-10, 22), 46, 7, 3);
}

/** A prop on one bone whose parts are made as Bring in makes them, and can be made again there. */
class Bank {
  readonly m = new Maker('Sedge bank', 'prop', 0.08);

  constructor() {
    this.m.palette('Emberquay', emberquaySwatches());
    this.m.bone(GROUND, null, [0, 0, 0]);
  }

  grow(importer: string, name: string, wishes: Readonly<Record<string, unknown>>): Id {
    const g = generatorOf(importer)!;
    const options = g.options.parse(wishes) as Record<string, unknown>;
    const made = g.make(options);
    const palette = { id: 'colours', name: g.name, swatches: made.swatches };
    return this.take(keepingHow(projectOfBodies(g.name, made.parts, palette), { importer, options }, []), name);
  }

  picture(file: string, name: string, rows: readonly string[], wishes: Readonly<Record<string, unknown>>): Id {
    const pixels = drawn(rows);
    const options = pictureOptions.parse(wishes);
    const body = finish(pictureSteps(pixels, options, null));
    const bytes = encodePng(pixels.width, pixels.height, pixels.rgba) as Uint8Array<ArrayBuffer>;
    const project = projectOfBodies(name, [{ name, grid: body.grid }], {
      ...{ id: 'colours', name, swatches: body.swatches },
    });
    const files = [{ name: file, blob: makeBlob(blobTypeOf(bytes), bytes) }];
    return this.take(keepingHow(project, { importer: 'picture', options }, files), name);
  }

  private take(source: Project, name: string): Id {
    this.m.apply(bringPartsEdit, { source, into: this.m.project.palettes[0]!.id });
    const part = this.m.project.parts.at(-1)!;
    if (part.name !== name) this.m.apply(renamePartEdit, { part: part.id, name });
    return part.id;
  }

  /** Stands a part with the middle of its foot on a place, by quarter turns, on a bone of its own; cubes stay on one lattice. */
  stand(part: Id, at: Vec3, quarters = 0): void {
    const { name, pivot } = must(this.m.project.parts, part, 'part');
    const [x, y, z] = mapVec(pivot, (v) => (v % 2 === 0 ? 0 : 0.5));
    const odd = quarters % 2 === 1;
    const t: Vec3 = [at[0] + (odd ? z : x), at[1] + y, at[2] + (odd ? x : z)];
    if (name !== GROUND) this.m.bone(name, GROUND, t);
    this.m.apply(mountPartEdit, { part, bone: this.m.boneId(name) });
    const mount = this.m.project.rig.mounts.find((o) => o.part === part)!;
    this.m.apply(setMountEdit, { mount: mount.id, place: { t: [0, 0, 0], q: turn(0, 90 * quarters) } });
  }

  /** How high the cubes of a part stand, counted from its foot. */
  heights(part: Id): (x: number, z: number) => number {
    const grid = composite(must(this.m.project.parts, part, 'part'));
    return (x, z) => {
      for (let y = 255; y >= 0; y--) if (grid.get(x, y, z) !== 0) return y + 1;
      return 0;
    };
  }
}
