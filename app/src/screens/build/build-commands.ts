import {
  IconColorPicker,
  IconCut,
  IconEyeglass,
  IconFlipVertical,
  IconLayersSubtract,
  IconRuler2,
} from '@tabler/icons-vue';
import { AXES, type Axis } from '@sphalerite/core/math';
import { mirrorOverEdit } from '@sphalerite/core/project';
import type { Command } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { READY_CARDS, REACHES, VERBS } from '../../tools/card';
import { useBuildPose } from './build-pose';
import { useBuild } from './build-state';
import { applyToPart } from './heavy';
import { FIGURES, FIGURE_NAMES } from '../shared/scale-figure';
import { useSelection } from './selection/selection-state';

import { part, target } from './build-target';
import { need, needsClip } from '../../stores/needs';

const AXIS = ['X', 'Y', 'Z'] as const;
const VERB_KEYS = { add: 'A', erase: 'E', paint: 'P', select: 'S' } as const;
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

const capital = (s: string): string => s[0]!.toUpperCase() + s.slice(1);

/** Tools, guides, views and volumes of Build, for menus, keys and the command search. */
export const buildCommands = (pickColour: () => void): Command[] => [
  ...toolCommands(pickColour),
  ...mirrorCommands(),
  ...guideCommands(),
];

/** Cards, verbs and reaches. */
function toolCommands(pickColour: () => void): Command[] {
  const build = useBuild();
  return [
    ...Array.from({ length: 9 }, (_, i): Command => ({
      id: `tool.${i + 1}`,
      get title() {
        return `Take tool ${i + 1}: ${build.cards[i]?.name ?? ''}`;
      },
      group: 'Tools',
      keys: [String(i + 1)],
      on: () => build.index === i,
      enabled: need(() => build.cards[i] !== undefined, 'there is no such tool'),
      run: () => build.take(i),
    })),
    ...VERBS.map((v): Command => ({
      id: `verb.${v}`,
      title: `${capital(v)} (verb)`,
      group: 'Tools',
      keys: [VERB_KEYS[v]],
      on: () => build.card.verb === v,
      run: () => build.setVerb(v),
    })),
    ...REACHES.map((r): Command => ({
      id: `reach.${r}`,
      title: `${capital(r)} (reach)`,
      group: 'Tools',
      keys: [REACH_KEYS[r]],
      on: () => build.card.reach === r,
      run: () => build.setReach(r),
    })),
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
    {
      id: 'card.rename',
      title: 'Rename the tool',
      group: 'Tools',
      keys: ['Ctrl+Alt+R'],
      run: () => (build.naming = build.index),
    },
    {
      id: 'card.keep',
      title: 'Keep the tool in hand as a new tool',
      group: 'Tools',
      keys: ['Ctrl+Alt+K'],
      enabled: need(() => build.changed !== null, 'nothing of the tool was changed'),
      run: () => build.keepAsNew(),
    },
    {
      id: 'card.restore',
      title: 'The tool as its card has it',
      group: 'Tools',
      enabled: need(() => build.changed !== null, 'nothing of the tool was changed'),
      run: () => build.take(build.index),
    },
    {
      id: 'card.duplicate',
      title: 'Another tool like this one',
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
        build.setCards([build.cards[build.index]!, ...build.cards.toSpliced(build.index, 1)]);
        build.index = 0;
      },
    },
    {
      id: 'card.remove',
      title: 'Take the tool off the bench',
      group: 'Tools',
      keys: ['Ctrl+Alt+B'],
      enabled: need(() => build.cards.length > 1, 'the last tool stays'),
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
  ];
}

/** Mirror planes and radial symmetry. */
function mirrorCommands(): Command[] {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
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
  ];
}

/** Guide plane, cutaway, and what stands around the part. */
function guideCommands(): Command[] {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const posed = useBuildPose();
  const { settings } = useSettings();
  return [
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
        const ends = build.handles === 'cutaway' || build.limit !== null;
        if (ends) build.setCut(null);
        build.handles = ends ? null : 'cutaway';
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
      enabled: needsClip,
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
  ];
}
