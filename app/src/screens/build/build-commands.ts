import {
  IconBoxMultiple,
  IconColorPicker,
  IconCut,
  IconEyeglass,
  IconFlipVertical,
  IconLayersSubtract,
  IconRuler2,
  IconStack2,
} from '@tabler/icons-vue';
import { AXES, type Axis, boxEnd } from '@sphalerite/core/math';
import {
  addLayerEdit,
  addPartEdit,
  centrePartEdit,
  clearPartEdit,
  coarsenPartEdit,
  deletePartEdit,
  duplicatePartEdit,
  mergeLayerEdit,
  mirrorOverEdit,
  placeCellsEdit,
  refinePartEdit,
  setPartHiddenEdit,
  setRowEdit,
  shrinkPartEdit,
  shrinkPartsEdit,
  strokeEdit,
} from '@sphalerite/core/project';
import { NO_SYMMETRY, innerCells } from '@sphalerite/core/sculpt';
import { helperBytes } from '@sphalerite/core/model';
import { CellSet } from '@sphalerite/core/voxel';
import { useNotices } from '../../stores/notices';
import type { Command } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { READY_CARDS, REACHES, VERBS } from '../../tools/card';
import { useBuildPose } from './build-pose';
import { useBuild } from './build-state';
import { applyToPart } from './heavy';
import { FIGURES, FIGURE_NAMES } from './scale-figure';
import { useSelection } from './selection-state';
import type { useTints } from './tints';
import { scaleVolume } from './volume-actions';

const AXIS = ['X', 'Y', 'Z'] as const;
const VERB_KEYS = { add: 'A', erase: 'E', paint: 'P', select: 'S' } as const;
/** A row more, a row less. */
const ROW_KEYS = [
  ['Alt+Right', 'Alt+Left'],
  ['Alt+Up', 'Alt+Down'],
  ['Alt+PageUp', 'Alt+PageDown'],
] as const;
const REACH_KEYS = {
  point: 'Shift+D',
  brush: 'Shift+B',
  line: 'Shift+W',
  box: 'Shift+Q',
  ellipsoid: 'Shift+E',
  cylinder: 'Shift+C',
  extrude: 'Shift+X',
  fill: 'Shift+F',
  stamp: 'Shift+S',
  opening: 'Shift+O',
} as const;

/** Tools, guides, views and volumes of Build, for menus, keys and the command search. */
export function buildCommands(tints: ReturnType<typeof useTints>, pickColour: () => void): Command[] {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const posed = useBuildPose();
  const notices = useNotices();
  const { settings } = useSettings();
  const has = (): boolean => session.part !== null;
  const part = (
    id: string,
    title: string,
    run: () => unknown,
    keys?: string[],
    icon?: Command['icon'],
    on?: () => boolean,
  ): Command => ({
    id,
    title,
    group: id.split('.')[0] === 'part' ? 'Part' : 'Build',
    enabled: has,
    run,
    ...(keys ? { keys } : {}),
    ...(icon ? { icon } : {}),
    ...(on ? { on } : {}),
  });
  const target = () => ({ part: session.part!.id, layer: session.layer!.id, limit: build.limit });
  const tint = (t: typeof build.tint): void => void (build.tint = build.tint === t ? 'none' : t);
  const clear = (cells: CellSet, title: string): void => {
    if (cells.isEmpty) notices.say('There is nothing of that kind.');
    else session.apply(placeCellsEdit, { ...target(), clear: cells, put: [], title });
  };
  const liveAxis = (): Axis =>
    Math.max(
      0,
      build.mirror.findIndex((h) => h !== null),
    ) as Axis;
  const over = (keep: 'low' | 'high') => (): void =>
    selection.selected
      ? void session.apply(mirrorOverEdit, {
          ...target(),
          axis: liveAxis(),
          plane: build.middles[liveAxis()],
          keep,
          within: selection.selected,
        })
      : applyToPart(mirrorOverEdit, { ...target(), axis: liveAxis(), plane: build.middles[liveAxis()], keep });
  return [
    ...Array.from({ length: 9 }, (_, i): Command => ({
      id: `tool.${i + 1}`,
      get title() {
        return `Take tool ${i + 1}: ${build.cards[i]?.name ?? ''}`;
      },
      group: 'Tools',
      keys: [String(i + 1)],
      on: () => build.index === i,
      enabled: () => build.cards[i] !== undefined,
      run: () => (build.index = i),
    })),
    ...VERBS.map((v): Command => ({
      id: `verb.${v}`,
      title: `Verb: ${v}`,
      group: 'Tools',
      keys: [VERB_KEYS[v]],
      on: () => build.card.verb === v,
      run: () => build.setVerb(v),
    })),
    ...REACHES.map((r): Command => ({
      id: `reach.${r}`,
      title: `Reach: ${r}`,
      group: 'Tools',
      keys: [REACH_KEYS[r]],
      on: () => build.card.reach === r,
      run: () => build.setReach(r),
    })),
    ...AXES.map((a): Command => ({
      id: `mirror.${AXIS[a].toLowerCase()}`,
      title: `Mirror ${AXIS[a]}`,
      group: 'Tools',
      keys: [['M', 'Shift+M', 'Alt+M'][a]!],
      icon: IconFlipVertical,
      on: () => build.mirrorOn[a],
      run: () => build.toggleMirror(a),
    })),
    {
      id: 'radial.toggle',
      title: 'Radial symmetry',
      group: 'Tools',
      keys: ['Alt+R'],
      on: () => build.radialOn,
      run: () => (build.radialOn = !build.radialOn),
    },
    part('mirror.low', 'Mirror the low half over (left of the plane, below, behind)', over('low'), ['Alt+[']),
    part('mirror.high', 'Mirror the high half over', over('high'), ['Alt+]']),
    part(
      'tint.unpaired',
      'Tint cubes without a twin',
      () => tint('unpaired'),
      ['Y'],
      undefined,
      () => build.tint === 'unpaired',
    ),
    part(
      'tint.grain',
      'Grain view: tint what uses the finer grain',
      () => tint('grain'),
      ['Alt+Y'],
      undefined,
      () => build.tint === 'grain',
    ),
    part(
      'tint.layer',
      'Tint the layer in hand',
      () => tint('layer'),
      ['Shift+Y'],
      IconStack2,
      () => build.tint === 'layer',
    ),
    part(
      'tint.tidy',
      'Find loose cubes and holes',
      () => tint('tidy'),
      ['Ctrl+U'],
      undefined,
      () => build.tint === 'tidy',
    ),
    part(
      'tint.silhouette',
      'Silhouette check against the reference picture',
      () => tint('silhouette'),
      ['Shift+U'],
      undefined,
      () => build.tint === 'silhouette',
    ),
    part(
      'tidy.loose',
      'Delete loose cubes',
      () => tints.found.value && clear(tints.found.value.loose, 'Delete loose cubes'),
      ['Ctrl+Alt+L'],
    ),
    part(
      'tidy.holes',
      'Fill single holes with the swatch in hand',
      () => {
        const f = tints.found.value;
        if (f)
          session.apply(strokeEdit, {
            ...target(),
            stroke: {
              verb: 'add',
              value: build.swatch?.byte ?? 1,
              shapes: [{ kind: 'set', set: f.holes }],
              symmetry: NO_SYMMETRY,
            },
          });
      },
      ['Ctrl+Alt+H'],
    ),
    part(
      'tidy.hollow',
      'Hollow out, leaving walls',
      () => clear(innerCells(build.seen!, build.keepWall), 'Hollow out'),
      ['Ctrl+Alt+O'],
    ),
    part(
      'tidy.colours',
      'Unite the nearest of almost equal colours in the layer',
      () => {
        const pair = tints.nearPairs()[0],
          grid = session.layer!.grid;
        if (!pair) {
          notices.say('No two colours here are almost equal.');
          return;
        }
        const [a, b] = [CellSet.ofValue(grid, pair.a.byte), CellSet.ofValue(grid, pair.b.byte)];
        session.apply(strokeEdit, {
          ...target(),
          stroke: {
            verb: 'paint',
            value: a.count < b.count ? pair.b.byte : pair.a.byte,
            shapes: [{ kind: 'set', set: a.count < b.count ? a : b }],
            symmetry: NO_SYMMETRY,
          },
        });
      },
      ['Ctrl+Alt+U'],
    ),
    part(
      'tidy.helpers',
      'Remove all helper cubes',
      () => {
        const table = session.palette && helperBytes(session.palette);
        clear(
          table ? CellSet.matching(session.layer!.grid, table) : new CellSet({ min: [0, 0, 0], size: [0, 0, 0] }),
          'Remove helper cubes',
        );
      },
      ['Ctrl+Alt+X'],
    ),
    part(
      'guide.toggle',
      'Guide plane',
      () => {
        const b = session.part!.bounds;
        build.guide = build.guide ? null : { axis: 1, at: 2 * (b.min[1] + (b.size[1] >> 1)) + 1 };
      },
      ['Q'],
      IconLayersSubtract,
      () => build.guide !== null,
    ),
    part(
      'guide.axis',
      'Guide plane across the next axis',
      () => {
        const g = build.guide,
          b = session.part!.bounds;
        const axis = (((g?.axis ?? 0) + 1) % 3) as Axis;
        build.guide = { axis, at: 2 * (b.min[axis] + (b.size[axis] >> 1)) + 1 };
      },
      ['Alt+Q'],
    ),
    part('guide.up', 'Guide plane one layer up', () => build.stepGuide(2), [']']),
    part('guide.down', 'Guide plane one layer down', () => build.stepGuide(-2), ['[']),
    part('guide.upHalf', 'Guide plane half a layer up', () => build.stepGuide(1), ['}']),
    part('guide.downHalf', 'Guide plane half a layer down', () => build.stepGuide(-1), ['{']),
    part(
      'cut.toggle',
      'Cutaway: hide what is in the way',
      () => {
        if (build.handles === 'cutaway') {
          build.handles = null;
          return;
        }
        build.handles = 'cutaway';
      },
      ['X'],
      IconCut,
      () => build.handles === 'cutaway' || build.limit !== null,
    ),
    part(
      'cut.clear',
      'Show everything again',
      () => {
        build.setCut(null);
        build.handles = build.handles === 'cutaway' ? null : build.handles;
      },
      ['Alt+X'],
    ),
    part('cut.selection', 'Cutaway to the selection', () => selection.box && build.setCut(selection.box), ['Alt+S']),
    {
      id: 'view.posed',
      title: 'Neighbours at the pose of the clip',
      group: 'Build',
      keys: ['Shift+I'],
      enabled: () => session.clip !== null,
      on: () => posed.on,
      run: () => posed.toggle(),
    },
    part(
      'view.seeThrough',
      'See through the part',
      () => (build.seeThrough = !build.seeThrough),
      ['Z'],
      IconEyeglass,
      () => build.seeThrough,
    ),
    {
      id: 'view.isolate',
      title: 'Isolate the part',
      group: 'View',
      keys: ['I'],
      on: () => build.isolate,
      run: () => (build.isolate = !build.isolate),
    },
    {
      id: 'view.figure',
      get title() {
        return `Scale figure: ${FIGURE_NAMES[settings.figure]}`;
      },
      group: 'View',
      keys: ['H'],
      on: () => settings.figure !== 'none',
      run: () => (settings.figure = FIGURES[(FIGURES.indexOf(settings.figure) + 1) % FIGURES.length]!),
    },
    part('tool.pick', 'Take the colour under the pointer', pickColour, ['C'], IconColorPicker),
    part(
      'tool.measure',
      'Measure between two cubes',
      () => (build.measuring = !build.measuring),
      ['U'],
      IconRuler2,
      () => build.measuring,
    ),
    part(
      'tool.growVolume',
      'Let strokes grow the volume',
      () => (build.growVolume = !build.growVolume),
      ['W'],
      undefined,
      () => build.growVolume,
    ),
    part(
      'volume.handles',
      'Handles on the volume',
      () => (build.handles = build.handles === 'volume' ? null : 'volume'),
      ['V'],
      IconBoxMultiple,
      () => build.handles === 'volume',
    ),
    part('volume.double', 'Double the volume', () => scaleVolume(2), ['Ctrl+Alt+Up']),
    part('volume.halve', 'Halve the volume', () => scaleVolume(0.5), ['Ctrl+Alt+Down']),
    part(
      'part.new',
      'New part',
      () =>
        session.apply(
          addPartEdit,
          { name: 'Part', bounds: { min: [-8, 0, -8], size: [16, 16, 16] }, pivot: [0, 0, 0] },
          (p) => ({ part: p.parts.at(-1)!.id, layer: null }),
        ),
      ['Shift+N'],
    ),
    part('part.duplicate', 'Duplicate the part', () => session.apply(duplicatePartEdit, { part: session.part!.id }), [
      'Ctrl+D',
    ]),
    part(
      'part.delete',
      'Delete the part (to the bin)',
      () => session.apply(deletePartEdit, { part: session.part!.id }),
      ['Shift+Delete'],
    ),
    part(
      'part.hide',
      'Hide or show the part',
      () => session.apply(setPartHiddenEdit, { part: session.part!.id, hidden: !session.part!.hidden }),
      ['Shift+H'],
    ),
    part('part.shrink', 'Shrink to fit', () => session.apply(shrinkPartEdit, { part: session.part!.id }), ['Shift+V']),
    part(
      'part.shrinkAll',
      'Shrink all parts to fit',
      () => session.apply(shrinkPartsEdit, { parts: session.project!.parts.map((p) => p.id) }),
      ['Alt+V'],
    ),
    part(
      'part.centre',
      'Centre the cubes in the volume',
      () => applyToPart(centrePartEdit, { part: session.part!.id, down: true }),
      ['Alt+C'],
    ),
    part('part.clear', 'Clear the part', () => session.apply(clearPartEdit, { part: session.part!.id }), [
      'Ctrl+Delete',
    ]),
    part('part.refine2', 'Refine ×2', () => applyToPart(refinePartEdit, { part: session.part!.id, by: 2 }, 8), [
      'Alt+Plus',
      'Alt+=',
    ]),
    part('part.refine3', 'Refine ×3', () => applyToPart(refinePartEdit, { part: session.part!.id, by: 3 }, 27), [
      'Ctrl+Alt+=',
      'Ctrl+Alt+Plus',
    ]),
    part('part.coarsen2', 'Coarsen ÷2', () => applyToPart(coarsenPartEdit, { part: session.part!.id, by: 2 }), [
      'Alt+-',
    ]),
    part('part.coarsen3', 'Coarsen ÷3', () => applyToPart(coarsenPartEdit, { part: session.part!.id, by: 3 }), [
      'Ctrl+Alt+-',
    ]),
    ...AXES.flatMap((a): Command[] =>
      ([1, -1] as const).map((by) =>
        part(
          `part.row${by > 0 ? 'Add' : 'Remove'}${AXIS[a]}`,
          `${by > 0 ? 'Add a row' : 'Remove the row'} in the middle along ${AXIS[a]}`,
          () => {
            const b = session.part!.bounds;
            applyToPart(setRowEdit, {
              part: session.part!.id,
              axis: a,
              at: b.min[a] + ((boxEnd(b)[a] - b.min[a] - 1) >> 1),
              by,
            });
          },
          [ROW_KEYS[a][by > 0 ? 0 : 1]],
        ),
      ),
    ),
    {
      id: 'card.rename',
      title: 'Rename the tool',
      group: 'Tools',
      keys: ['Ctrl+Alt+R'],
      run: () => (build.naming = build.index),
    },
    {
      id: 'card.duplicate',
      title: 'Duplicate the tool',
      group: 'Tools',
      keys: ['Ctrl+Alt+D'],
      run: () => {
        build.setCards(build.cards.toSpliced(build.index + 1, 0, { ...build.card, name: `${build.card.name} 2` }));
        build.index++;
      },
    },
    {
      id: 'card.first',
      title: 'Put the tool first',
      group: 'Tools',
      keys: ['Ctrl+Alt+F'],
      run: () => {
        build.setCards([build.card, ...build.cards.toSpliced(build.index, 1)]);
        build.index = 0;
      },
    },
    {
      id: 'card.remove',
      title: 'Take the tool off the bench',
      group: 'Tools',
      keys: ['Ctrl+Alt+B'],
      enabled: () => build.cards.length > 1,
      run: () => {
        build.setCards(build.cards.toSpliced(build.index, 1));
        build.index = Math.min(build.index, build.cards.length - 1);
      },
    },
    {
      id: 'card.reset',
      title: 'The ready tools again',
      group: 'Tools',
      keys: ['Ctrl+Alt+Z'],
      run: () => {
        build.setCards(READY_CARDS);
        build.index = 0;
      },
    },
    part(
      'layer.new',
      'New layer',
      () =>
        session.apply(
          addLayerEdit,
          { part: session.part!.id, name: `Layer ${session.part!.layers.length + 1}`, above: session.layer!.id },
          (p) => {
            const layers = p.parts.find((o) => o.id === session.part!.id)!.layers;
            return { layer: layers[layers.findIndex((l) => l.id === session.layer!.id) + 1]!.id };
          },
        ),
      ['Ctrl+Shift+L'],
    ),
    part(
      'layer.merge',
      'Merge the layer down',
      () => session.apply(mergeLayerEdit, { part: session.part!.id, layer: session.layer!.id }),
      ['Ctrl+Shift+E'],
    ),
  ];
}
