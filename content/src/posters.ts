import {
  type Id,
  type Project,
  type ShotSettings,
  inColourway,
  makeCamera,
  makeGrade,
  makeLight,
  makeOutput,
  makeStage,
  NO_VARIATION,
  placementsOf,
} from '@sphalerite/core/model';
import { addSceneEdit, addShotEdit, removePlacementsEdit } from '@sphalerite/core/project';
import { Maker } from './maker';
import { MARKET as M, marketSwatches } from './market-palette';
import * as pieces from './market-pieces';
import { buildNightMarket } from './night-market';
import { buildOswinRigged } from './oswin-rigged';
import { SceneHand } from './scene-hand';
import { buildTamsin } from './tamsin';

const output = makeOutput({ size: [1920, 1080], samples: 20, noise: 0.07, file: 'jpeg' });

/** A project with a shot of its own, in front of all others. */
function shotOf(m: Maker, shot: Partial<ShotSettings>): Project {
  m.apply(addShotEdit, { name: 'Poster', shot: { ...shot, output } });
  const { shots } = m.project;
  return { ...m.project, shots: [shots.at(-1)!, ...shots.slice(0, -1)] };
}

/** An empty scene in the colours of the market; pieces that are made for it stand nowhere until they are put. */
function scene(name: string, make: (m: Maker) => (hand: SceneHand) => void): Maker {
  const m = new Maker(name, 'scene', 0.05);
  m.palette('Emberquay market', marketSwatches());
  m.apply(addSceneEdit, { name });
  const hand = new SceneHand(m),
    put = make(m);
  m.apply(removePlacementsEdit, { scene: hand.id, placements: placementsOf(m.project.scenes[0]!).map((p) => p.id) });
  put(hand);
  return m;
}
const sceneOf = (m: Maker): Id => m.project.scenes[0]!.id;

/** The market when the lamps have just been lit, from the water. */
function market(): Project {
  const m = Maker.from(buildNightMarket());
  const { id: _, name: __, ...light } = m.project.shots[0]!;
  return shotOf(m, {
    ...light,
    camera: makeCamera({ eye: [112, 82, 206], target: [-6, 29, -12], fov: 36, aperture: 2, focus: 224 }),
    grade: makeGrade({ exposure: 0.6, bloom: 0.12, vignette: 0.3, contrast: 0.06, grain: 0.05 }),
  });
}

/** Tamsin under her lantern, near enough to read her face. */
function lantern(): Project {
  return shotOf(Maker.from(buildTamsin()), {
    camera: makeCamera({ eye: [25, 31, 46], target: [5, 31, 0], fov: 32, aperture: 0.45, focus: 43, blades: 7 }),
    light: makeLight({
      sun: { azimuth: 62, elevation: 24, size: 9, colour: '#ffb877', strength: 0.75 },
      sky: { kind: 'blue hour', strength: 0.6, turn: 60 },
      glow: { strength: 1.7 },
    }),
    stage: makeStage({ ground: { kind: 'colour', colour: '#3d4152' }, edges: 0.12 }),
    grade: makeGrade({ exposure: 0.55, bloom: 0.14, vignette: 0.35, contrast: 0.08, grain: 0.06 }),
  });
}

/** Oswin wading at first light, a boat and a lamp behind him in the fog. */
function fog(): Project {
  const m = scene('Oswin in the fog', (made) => {
    const boat = pieces.boat(made),
      reeds = pieces.reeds(made),
      post = pieces.lampPost(made);
    return (hand) => {
      hand.figure(buildOswinRigged(), 'Wade', 0.4, [4, -6, 30], 42);
      hand.put(boat, [-34, -5, -40], { turn: 20 });
      hand.lamp(hand.put(post, [44, -9, -60], { turn: 200 }), [11, 53, 0], 40);
      for (const [x, z, turn, scale] of [
        [-36, 26, 10, 0.8],
        [-46, 14, 80, 0.7],
        [40, 12, 40, 0.8],
        [52, 2, 120, 0.9],
        [22, -40, 60, 1],
        [-86, -30, 0, 1.1],
      ] as const)
        hand.put(reeds, [x, -9, z], { turn, scale });
    };
  });
  return shotOf(m, {
    scene: sceneOf(m),
    camera: makeCamera({ eye: [30, 15, 110], target: [4, 15, 20], fov: 30, aperture: 1.4, focus: 82 }),
    light: makeLight({
      sun: { azimuth: 156, elevation: 17, size: 5, colour: '#ffd2a0', strength: 3.4 },
      sky: { zenith: '#8fa7bd', horizon: '#f1d9c2', strength: 0.62 },
      fog: { density: 0.035, colour: '#f2e2d2', height: 1.1 },
    }),
    stage: makeStage({ ground: { kind: 'water', colour: '#2d4a4c' } }),
    grade: makeGrade({ exposure: 0.1, bloom: 0.1, vignette: 0.2, warmth: 0.05 }),
  });
}

/** The boathouse by itself, as on a game board. */
function boathouse(): Project {
  const m = scene('The boathouse', (made) => {
    const quay = pieces.quayTile(made, 112, 104),
      canal = pieces.canal(made, 112, 60),
      house = pieces.house(made, {
        ...{ name: 'Boathouse', wide: 72, deep: 54, high: 46, door: -18 },
        ...{ windows: [8], floors: 1 },
      }),
      [boat, reeds, post] = [pieces.boat(made), pieces.reeds(made), pieces.lampPost(made)],
      [crate, barrel, bollard, planter] = [
        pieces.crate(made),
        pieces.barrel(made),
        pieces.bollard(made),
        pieces.planter(made),
      ];
    return (hand) => {
      hand.put(quay, [0, 0, -12]);
      hand.put(canal, [0, -9, 70]);
      hand.put(house, [-8, 1, -30]);
      hand.put(boat, [6, -8, 66], { turn: 6 });
      hand.lamp(hand.put(post, [44, 1, 26], { turn: 90 }), [0, 54, -11], 22);
      hand.put(crate, [42, 1, -10], { turn: 12 });
      hand.put(crate, [44, 14, -11], { turn: 40 });
      hand.put(crate, [44, 1, -28], { turn: -8 });
      hand.put(barrel, [-46, 1, 8]);
      hand.put(barrel, [-47, 1, 24]);
      hand.put(planter, [20, 1, 6]);
      hand.repeat(hand.put(bollard, [-40, 1, 34]), {
        ...{ kind: 'line', counts: [3, 1, 1], step: [36, 0, 0] },
        ...{ second: null, vary: NO_VARIATION },
      });
      for (const [x, z, turn] of [
        [-46, 48, 0],
        [-36, 46, 50],
        [-50, 60, 120],
        [48, 48, 20],
        [50, 88, 90],
      ] as const)
        hand.put(reeds, [x, -9, z], { turn });
      hand.figure(buildTamsin(), 'Light the lamp', 1.25, [8, 1, 20], 40);
    };
  });
  return shotOf(m, {
    scene: sceneOf(m),
    camera: makeCamera({ kind: 'isometric', eye: [220, 226, 230], target: [0, 19, 10], height: 176 }),
    light: makeLight({
      sun: { azimuth: 112, elevation: 22, size: 4, colour: '#ffad73', strength: 1.5 },
      sky: { zenith: '#3d4a86', horizon: '#8a7fa6', strength: 0.6, seen: false },
      glow: { strength: 0.8 },
    }),
    stage: makeStage({ ground: { kind: 'none', colour: '#2a3640' } }),
    grade: makeGrade({ exposure: 0.5, bloom: 0.08, vignette: 0.25, contrast: 0.05 }),
  });
}

/** Props of the quay as drawn with ink and three tones. */
function props(): Project {
  const m = scene('Props of the quay', (made) => {
    const [stall, crate, barrel, bollard] = [
      pieces.stall(made),
      pieces.crate(made),
      pieces.barrel(made),
      pieces.bollard(made),
    ];
    const [post, boat, planter, reeds] = [
      pieces.lampPost(made),
      pieces.boat(made),
      pieces.planter(made),
      pieces.reeds(made),
    ];
    const fruit = pieces.wares(made, 'Fruit', [M.cherry, M.orange, M.lime]);
    return (hand) => {
      hand.put(fruit, [0, 17, 11], { on: hand.put(stall, [-74, 0, -20], { turn: 24 }) });
      hand.put(post, [-8, 0, -26], { turn: 30 });
      hand.put(boat, [66, 4, -14], { turn: -24 });
      hand.put(barrel, [-50, 0, 42]);
      hand.put(crate, [-18, 0, 44], { turn: 20 });
      hand.put(bollard, [12, 0, 46]);
      hand.put(planter, [40, 0, 48], { turn: -15 });
      hand.put(reeds, [70, 0, 48], { turn: 30 });
    };
  });
  return shotOf(m, {
    scene: sceneOf(m),
    camera: makeCamera({ kind: 'orthographic', eye: [40, 110, 230], target: [2, 25, 8], height: 122 }),
    light: makeLight({
      sun: { azimuth: -40, elevation: 46, size: 1, strength: 2.1 },
      sky: { zenith: '#dfe8ec', horizon: '#f4ead8', strength: 0.7, seen: false },
    }),
    stage: makeStage({ ground: { kind: 'colour', colour: '#efe2c8' } }),
    grade: makeGrade({ curve: 'none', steps: 3, outline: INK }),
  });
}

/** Tamsin in all her colourways. */
function colourways(): Project {
  const tamsin = buildTamsin();
  const looks = [null, ...tamsin.colourways.map((c) => c.id)].slice(0, 4);
  const m = scene('Colourways of Tamsin', () => (hand) => {
    for (const [i, look] of looks.entries())
      hand.figure(
        { ...inColourway(tamsin, look), id: `${tamsin.id}-${i}` },
        i % 2 ? 'Walk' : 'Idle',
        i % 2 ? 0.2 : 0,
        [(i - 1.6) * 27, 0, (i % 2) * 6],
        12 - i * 6,
      );
  });
  return shotOf(m, {
    scene: sceneOf(m),
    camera: makeCamera({ eye: [10, 30, 150], target: [1.5, 20, 0], fov: 25 }),
    light: makeLight({
      sun: { azimuth: 35, elevation: 42, size: 3, strength: 0 },
      sky: { kind: 'studio', strength: 1, seen: false },
      glow: { strength: 0.8 },
    }),
    stage: makeStage({ ground: { kind: 'backdrop', colour: '#d9cdb9' }, edges: 0.12 }),
    grade: makeGrade({ curve: 'neutral', exposure: 0, bloom: 0.04 }),
  });
}

/** Tamsin walking, from eight sides as a game shows her, and once about in the studio. */
const moving = (makes: 'sprites' | 'path'): Project => {
  const m = Maker.from(buildTamsin());
  const [dusk, , game] = m.project.shots;
  const project = shotOf(m, {
    camera: makes === 'sprites' ? game!.camera : makeCamera({ ...dusk!.camera, eye: [40, 32, 86], target: [4, 21, 0] }),
    clip: dusk!.clip,
    time: dusk!.time,
    light: makeLight({
      sun: { azimuth: 35, elevation: 42, size: 6, colour: '#fff1dc', strength: 1.1 },
      sky: { kind: 'studio', strength: 0.7, seen: false },
    }),
    stage: makeStage({ ground: { kind: makes === 'sprites' ? 'none' : 'backdrop', colour: '#d9cdb9' } }),
    grade: makeGrade({
      curve: 'neutral',
      ...(makes === 'sprites' ? { outline: { ...INK, width: 1, inside: false } } : {}),
    }),
  });
  const [shot, ...others] = project.shots;
  const series = {
    ...{ makes, size: [320, 320] as const, samples: 16, noise: 0.1, fps: 8, seconds: 3 },
    ...{ transparent: makes === 'sprites', sprites: { ...output.sprites, scale: 2 } },
  };
  return { ...project, shots: [{ ...shot!, output: { ...output, ...series } }, ...others] };
};
const INK = { width: 4, colour: '#2a1d18', inside: true };

/** What moves, likewise. */
export const MOVING: Readonly<Record<string, () => Project>> = {
  'tamsin-walks': () => moving('sprites'),
  'tamsin-turns': () => moving('path'),
};

/** Every poster by the name of its file; it is the first shot of its project. */
export const POSTERS: Readonly<Record<string, () => Project>> = {
  'market-at-blue-hour': market,
  'tamsin-under-her-lantern': lantern,
  'oswin-in-the-fog': fog,
  'boathouse-at-dusk': boathouse,
  'props-of-the-quay': props,
  'colourways-of-tamsin': colourways,
};
