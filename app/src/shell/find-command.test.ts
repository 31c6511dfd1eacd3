import { expect, it } from 'vitest';
import type { Command } from '../stores/commands';
import { findCommands } from './find-command';
import catalogue from './shortcuts/catalogue.json';

const command = (id: string, title: string, more: Partial<Command> = {}): Command => ({
  id,
  title,
  group: 'View',
  run: () => undefined,
  ...more,
});
const LIST = [
  command('view.flat', 'Orthographic view: no perspective', { keys: ['O'] }),
  command('view.nearer', 'Zoom in'),
  command('view.farther', 'Zoom out'),
  command('edit.redo', 'Redo', { group: 'Edit', keys: ['Ctrl+Y'] }),
  command('reach.fill', 'Fill (reach)', { group: 'Tools' }),
  command('tool.pick', 'Take the colour under the pointer', { group: 'Tools' }),
  command('mirror.x', 'Mirror X', { group: 'Symmetry', keys: ['M'] }),
  command('rig.mirrorLeft', 'Mirror the left side to the right', {
    group: 'Rig',
    enabled: () => 'choose a bone first',
  }),
];
const first = (query: string, recent: string[] = []): string | undefined => findCommands(LIST, query, recent)[0]?.id;

it('finds by the trade’s words, by other names, by parts of words and in spite of slips', () => {
  for (const [query, id] of [
    ['ortho', 'view.flat'],
    ['zoom out', 'view.farther'],
    ['redo', 'edit.redo'],
    ['bucket', 'reach.fill'],
    ['eyedropper', 'tool.pick'],
    ['eyedroper', 'tool.pick'],
    ['mirror x', 'mirror.x'],
    ['mirorr', 'mirror.x'],
    ['perspectiv', 'view.flat'],
  ] as const)
    expect([query, first(query)]).toEqual([query, id]);
  expect(findCommands(LIST, 'zoom mirror', [])).toEqual([]);
  expect(findCommands(LIST, 'qwxz', [])).toEqual([]);
});

it('puts what was used of late first where nothing else tells; what cannot be done now comes after its equals', () => {
  expect(
    findCommands(LIST, '', ['view.farther', 'mirror.x'])
      .slice(0, 2)
      .map((c) => c.id),
  ).toEqual(['view.farther', 'mirror.x']);
  expect(first('zoom')).toBe('view.nearer');
  expect(first('zoom', ['view.farther'])).toBe('view.farther');
  expect(findCommands(LIST, 'mirror', []).map((c) => c.id)).toEqual(['mirror.x', 'rig.mirrorLeft']);
});

it.each(
  Object.entries({
    build: {
      ortho: 'view.flat',
      perspective: 'view.flat',
      'zoom out': 'view.farther',
      undo: 'edit.undo',
      redo: 'edit.redo',
      bucket: 'reach.fill',
      fill: 'reach.fill',
      eyedropper: 'tool.pick',
      pipette: 'tool.pick',
      hollow: 'tidy.hollow',
      wireframe: 'view.edges',
      isometric: 'view.isometric',
      import: 'project.bringIn',
      export: 'project.export',
      sphere: 'reach.ellipsoid',
      ruler: 'tool.measure',
      'dark mode': 'look.theme',
      'x-ray': 'view.seeThrough',
      tutorial: 'help.coach',
      origin: 'part.centre',
      fit: 'part.shrink',
      'zoom extents': 'view.all',
      focus: 'view.frame',
      crop: 'part.shrink',
      symmetry: 'radial.toggle',
      bevel: 'reach.extrude',
      duplicate: 'part.duplicate',
      layer: 'layer.new',
      subdivide: 'part.refine2',
      resize: 'volume.handles',
      section: 'cut.toggle',
      marquee: 'select.all',
      deselect: 'select.none',
      extrude: 'reach.extrude',
      gradient: 'swatch.ramp',
      hotkeys: 'help.shortcuts',
      solo: 'view.isolate',
      background: 'view.backdrop',
      'colour blind': 'view.vision',
      array: 'select.repeat',
      variant: 'colourway.new',
      fullscreen: 'look.fold',
    },
    rig: {
      'rest pose': 'rig.reset',
      ik: 'rig.limb',
      armature: 'bone.new',
      skeleton: 'bone.new',
      rotate: 'rig.turn',
      pivot: 'rig.joint',
      cancel: 'rig.cancel',
      symmetrize: 'rig.mirrorLeft',
    },
    animate: {
      keyframe: 'anim.key',
      autokey: 'anim.auto',
      loop: 'anim.closeLoop',
      'graph editor': 'anim.sheetCurves',
      timeline: 'anim.sheetKeys',
      'onion skin': 'anim.onion',
      pause: 'anim.play',
      'rest pose': 'anim.resetPose',
    },
    light: { render: 'light.trace', screenshot: 'light.save', camera: 'light.follow' },
    ship: { gltf: 'ship.save', download: 'ship.save' },
  }),
)('the words that an artist would type find what is meant on %s', (screen, meant) => {
  const commands = catalogue
    .filter((c) => c.screen === '' || c.screen === screen)
    .map((c) => command(c.id, c.title, { group: c.group, keys: c.keys }));
  const found = Object.keys(meant).map((query) => [query, findCommands(commands, query, [])[0]?.id]);
  expect(Object.fromEntries(found)).toEqual(meant);
});
