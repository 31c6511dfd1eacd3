import {
  type Id,
  makeCamera,
  makeGrade,
  makeLight,
  makeOutput,
  makeStage,
  NO_VARIATION,
  placementsOf,
  type Project,
} from '@sphalerite/core/model';
import {
  addColourwayEdit,
  addSceneEdit,
  addShotEdit,
  editSwatchEdit,
  removePlacementsEdit,
} from '@sphalerite/core/project';
import { Maker } from './maker';
import { MARKET as M, marketSwatches } from './market-palette';
import * as pieces from './market-pieces';
import { SceneHand } from './scene-hand';
import { buildOswinRigged } from './oswin-rigged';
import { buildTamsin } from './tamsin';

/** Looks that stalls and houses take on by turns. */
const LOOKS: Readonly<Record<string, Partial<Record<keyof typeof M, string>>>> = {
  Plum: {
    awning: '#573560',
    awningDark: '#412748',
    roof: '#4f4669',
    roofDark: '#3e3755',
    roofLight: '#62587f',
    plaster: '#b3bda9',
    plasterDark: '#9aa691',
  },
  Resin: {
    awning: '#b45a1e',
    awningDark: '#8d4315',
    roof: '#2f6a63',
    roofDark: '#24534e',
    roofLight: '#3f8279',
    plaster: '#cda572',
    plasterDark: '#b58d5c',
  },
  Honey: {
    awning: '#d99a25',
    awningDark: '#b07a16',
    roof: '#47525e',
    roofDark: '#38424d',
    roofLight: '#586572',
    plaster: '#cfc3b4',
    plasterDark: '#b7aa99',
  },
};

/** The quay where the deck ends and the canal begins, and how high the water stands below. */
const EDGE = 40,
  WATER = -9;

/** The market by the canal, by night: stalls, houses, lamps and boats as linked copies of a few pieces, Tamsin and Oswin among them. */
export function buildNightMarket(): Project {
  const m = new Maker('Night market', 'scene', 0.05);
  m.palette('Emberquay market', marketSwatches());
  for (const [name, changes] of Object.entries(LOOKS)) {
    m.apply(addColourwayEdit, { name });
    const colourway = m.project.colourways.at(-1)!.id;
    for (const [key, colour] of Object.entries(changes))
      m.apply(editSwatchEdit, {
        palette: m.project.palettes[0]!.id,
        byte: M[key as keyof typeof M],
        change: { colour },
        colourway,
      });
  }
  m.apply(addSceneEdit, { name: 'Night market on the quay' });
  const stage = new SceneHand(m);
  const quay = pieces.quayTile(m, 96, 160),
    canal = pieces.canal(m, 148, 104);
  const wide = pieces.house(m, {
      name: 'Wide house',
      wide: 84,
      deep: 56,
      high: 76,
      door: -8,
      windows: [-34, 20],
      floors: 2,
    }),
    tall = pieces.house(m, {
      name: 'Tall house',
      wide: 60,
      deep: 52,
      high: 104,
      door: 8,
      windows: [-22, 6],
      floors: 3,
    }),
    low = pieces.house(m, { name: 'Low house', wide: 68, deep: 50, high: 44, door: -24, windows: [6], floors: 1 });
  const stall = pieces.stall(m);
  const fruit = pieces.wares(m, 'Fruit', [M.cherry, M.orange, M.lime]),
    fish = pieces.wares(m, 'Fish', [M.fish, M.fish, M.waterLight]),
    cloth = pieces.wares(m, 'Cloth', [M.cloth, M.awning, M.orange]);
  const crate = pieces.crate(m),
    barrel = pieces.barrel(m),
    bollard = pieces.bollard(m),
    post = pieces.lampPost(m),
    lanterns = pieces.lanterns(m, 112),
    boat = pieces.boat(m),
    reeds = pieces.reeds(m),
    planter = pieces.planter(m);
  // What was placed while it was built makes room for the scene itself.
  m.apply(removePlacementsEdit, { scene: stage.id, placements: placementsOf(m.project.scenes[0]!).map((p) => p.id) });

  stage.layer('Ground', '#7f858c', true);
  stage.repeat(stage.put(quay, [-96, 0, EDGE - 80]), {
    kind: 'line',
    counts: [3, 1, 1],
    step: [96, 0, 0],
    second: null,
    vary: NO_VARIATION,
  });
  stage.repeat(stage.put(canal, [-74, WATER, EDGE + 52]), {
    kind: 'line',
    counts: [2, 1, 1],
    step: [148, 0, 0],
    second: null,
    vary: NO_VARIATION,
  });
  stage.layer('Houses', '#a5482a');
  const row = -78;
  stage.put(tall, [-117, 1, row], { look: 'Honey' });
  stage.put(wide, [-34, 1, row - 2]);
  stage.put(tall, [48, 1, row], { look: 'Plum' });
  stage.put(low, [121, 1, row + 2], { look: 'Resin' });
  stage.layer('Stalls', '#2e7d6b');
  const stalls: readonly [number, number, number, string | null, Id, Id][] = [
    [-104, -28, 8, 'Honey', fruit, cloth],
    [-42, -31, 0, null, fish, fruit],
    [24, -31, -4, 'Resin', fruit, fruit],
    [92, -26, -10, 'Plum', cloth, fish],
    [-75, 15, 174, 'Plum', fruit, cloth],
    [62, 18, 186, null, cloth, fruit],
  ];
  for (const [x, z, degrees, look, front, back] of stalls) {
    const at = stage.put(stall, [x, 1, z], { turn: degrees, look });
    stage.put(front, [0, 18, 11], { on: at });
    if (back !== front) stage.put(back, [0, 25, -13], { on: at });
    stage.lamp(at, [0, 33, 12], 9);
  }
  stage.layer('Lamps', '#c98a2b');
  const posts = stage.put(post, [-128, 1, EDGE - 9], { turn: 90 });
  stage.lamp(posts, [0, 54, -11], 22);
  stage.repeat(posts, { kind: 'line', counts: [4, 1, 1], step: [84, 0, 0], second: null, vary: NO_VARIATION });
  for (const [x, z, degrees, y] of [
    [-74, -44, 4, 62],
    [38, -40, -5, 66],
    [-14, 6, 62, 58],
  ] as const)
    stage.put(lanterns, [x, y, z], { turn: degrees });
  stage.layer('Things', '#8a4f7d');
  const things: readonly [Id, number, number, number][] = [
    [crate, -6, 16, 20],
    [crate, -24, -6, 70],
    [crate, 122, 14, -12],
    [crate, 106, 26, 35],
    [crate, -124, 10, 0],
    [barrel, -137, -8, 0],
    [barrel, 56, -12, 0],
    [barrel, 136, -4, 0],
    [barrel, -9, -5, 30],
  ];
  for (const [id, x, z, degrees] of things) stage.put(id, [x, 1, z], { turn: degrees });
  stage.put(crate, [-5, 14, 16], { turn: 48 });
  stage.repeat(stage.put(planter, [0, 1, EDGE - 9]), {
    kind: 'line',
    counts: [2, 1, 1],
    step: [19, 0, 0],
    second: null,
    vary: NO_VARIATION,
  });
  stage.repeat(stage.put(bollard, [-106, 1, EDGE - 8]), {
    kind: 'line',
    counts: [4, 1, 1],
    step: [70, 0, 0],
    second: null,
    vary: NO_VARIATION,
  });
  stage.layer('Canal', '#3f7fa6');
  stage.put(boat, [-60, WATER + 1, EDGE + 26], { turn: 8 });
  stage.put(boat, [64, WATER + 1, EDGE + 40], { turn: -14 });
  stage.repeat(stage.put(reeds, [-128, WATER, EDGE + 8]), {
    ...{ kind: 'path', count: 9, closed: false, facing: false },
    points: [
      [-128, WATER, EDGE + 8],
      [-96, WATER, EDGE + 10],
      [-84, WATER, EDGE + 6],
    ],
    vary: { seed: 4, turn: 180, sizes: [0.7, 1.2], lean: 6 },
  });
  stage.repeat(stage.put(reeds, [104, WATER, EDGE + 8]), {
    ...{ kind: 'path', count: 7, closed: false, facing: false },
    points: [
      [104, WATER, EDGE + 8],
      [136, WATER, EDGE + 12],
    ],
    vary: { seed: 9, turn: 180, sizes: [0.7, 1.2], lean: 6 },
  });
  stage.layer('Figures', '#c66f2a');
  stage.figure(buildTamsin(), 'Light the lamp', 1.25, [-30, 1, 18], 24);
  stage.figure(buildOswinRigged(), 'Wade', 0.4, [-12, WATER, EDGE + 22], 150);
  shots(m);
  return m.project;
}

function shots(m: Maker): void {
  const scene = m.project.scenes[0]!.id;
  m.apply(addShotEdit, {
    name: 'Blue hour',
    shot: {
      scene,
      camera: makeCamera({ kind: 'perspective', eye: [132, 96, 214], target: [-6, 30, -14], fov: 38, height: 200 }),
      light: makeLight({
        sun: { azimuth: -120, elevation: 24, size: 6, colour: '#9fb4e6', strength: 0.35 },
        sky: { kind: 'blue hour', zenith: '#22345f', horizon: '#7f86ad', strength: 0.75, turn: 150 },
        glow: { strength: 0.7 },
      }),
      stage: makeStage({ ground: { kind: 'none', colour: '#2a3640' } }),
      clip: null,
      time: 0,
      grade: makeGrade({ exposure: 0.75, bloom: 0.08, vignette: 0.25, contrast: 0.06 }),
      output: makeOutput({ size: [1280, 720], samples: 16 }),
    },
  });
}
