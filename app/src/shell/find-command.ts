import Fuse from 'fuse.js';
import { type Command, isEnabled, keysFor } from '../stores/commands';

/** Words by which people look for a command whose title has others. */
export const ALSO: Readonly<Record<string, string>> = {
  'edit.undo': 'back revert',
  'edit.redo': 'repeat again forward',
  'edit.history': 'versions steps',
  'help.shortcuts': 'keyboard keys hotkeys bindings cheat sheet',
  'help.coach': 'tutorial tour introduction',
  'project.bringIn': 'import open load upload',
  'project.export': 'export download backup',
  'project.shelf': 'home projects gallery library',
  'project.rename': 'title name',
  'look.theme': 'dark light night mode',
  'look.fold': 'fullscreen panels sidebars',
  'view.flat': 'ortho orthogonal parallel perspective',
  'view.isometric': 'iso ortho',
  'view.all': 'fit zoom extents home',
  'view.frame': 'focus centre fit selection',
  'view.edges': 'wireframe outline lines',
  'view.lit': 'shading unlit lighting flat',
  'view.glow': 'emission bloom emissive',
  'view.backdrop': 'background colour',
  'view.sharpness': 'quality resolution slow machine performance antialias',
  'view.vision': 'colour blind accessibility',
  'view.neighbours': 'ghost other parts',
  'view.isolate': 'solo hide others',
  'view.seeThrough': 'x-ray transparent glass',
  'view.figure': 'human height reference',
  'tool.pick': 'eyedropper pipette sample colour',
  'tool.measure': 'ruler distance dimension',
  'reach.fill': 'bucket flood',
  'reach.ellipsoid': 'sphere ball round',
  'reach.extrude': 'push pull bevel chamfer',
  'reach.opening': 'window door arch',
  'reach.stamp': 'clone brush prefab',
  'verb.erase': 'delete remove subtract carve',
  'verb.add': 'draw attach build place',
  'tidy.hollow': 'shell empty inside',
  'tidy.loose': 'floating islands clean',
  'part.shrink': 'crop trim bounds fit',
  'part.refine2': 'resolution subdivide detail double upscale',
  'part.coarsen2': 'downscale resolution reduce half',
  'part.centre': 'origin align middle',
  'part.duplicate': 'copy clone',
  'part.hide': 'visibility eye invisible',
  'part.new': 'add object model',
  'volume.handles': 'resize canvas size bounds',
  'guide.toggle': 'plane grid layer workplane',
  'cut.toggle': 'slice section clip cross-section',
  'radial.toggle': 'rotational kaleidoscope mandala',
  'select.all': 'marquee everything',
  'select.none': 'deselect unselect clear',
  'select.repeat': 'array pattern copies',
  'card.duplicate': 'duplicate copy clone',
  'cursor.toggle': 'keyboard accessibility',
  'colourway.new': 'variant skin recolour',
  'swatch.ramp': 'shades tones gradient',
  'rig.turn': 'rotate gizmo',
  'rig.joint': 'pivot origin anchor move',
  'rig.reset': 'rest pose clear rotation',
  'rig.limb': 'inverse kinematics ik chain leg arm',
  'rig.mirrorLeft': 'symmetrize copy side',
  'rig.try': 'test pose preview',
  'rig.keep': 'template preset',
  'bone.new': 'joint armature skeleton',
  'anim.play': 'stop pause preview',
  'anim.key': 'keyframe insert record',
  'anim.auto': 'autokey record',
  'anim.resetPose': 'rest default t-pose',
  'anim.onion': 'ghost before after',
  'anim.sheetCurves': 'graph editor easing bezier',
  'anim.sheetKeys': 'dope sheet timeline',
  'anim.closeLoop': 'loop cycle seamless',
  'light.trace': 'render raytrace image',
  'light.make': 'turntable sprites gif video animation export',
  'light.save': 'export image screenshot download',
  'light.thumbnail': 'publish icon small square preview',
  'light.camera': 'viewpoint angle',
  'ship.save': 'export download gltf glb',
};

/** Farther from its words than this, a command is not what was meant. */
const THRESHOLD = 0.36;

/**
 * Commands that a query means, the best first: every word has to be found in a title, in words it is also known by, in its
 * group or its keys, spelled more or less so. What was used of late comes first where nothing else tells.
 */
export function findCommands(commands: readonly Command[], query: string, recent: readonly string[]): Command[] {
  const lately = (c: Command): number => (recent.includes(c.id) ? 1 - recent.indexOf(c.id) / recent.length : 0);
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [...commands].sort((a, b) => lately(b) - lately(a));
  const items = commands.map((command) => ({
    command,
    title: command.title,
    also: ALSO[command.id] ?? '',
    group: command.group,
    keys: keysFor(command).join(' '),
  }));
  const fuse = new Fuse(items, {
    keys: [
      { name: 'title', weight: 3 },
      { name: 'also', weight: 3 },
      { name: 'group', weight: 1 },
      { name: 'keys', weight: 1 },
    ],
    includeScore: true,
    ignoreLocation: true,
    ignoreFieldNorm: true,
    threshold: THRESHOLD,
  });
  const totals = new Map<Command, number>();
  for (const [n, word] of words.entries()) {
    const scores = new Map(fuse.search(word).map((r) => [r.item.command, r.score ?? 1]));
    for (const { command, title, also } of items) {
      const before = n === 0 ? 0 : totals.get(command);
      const score = before === undefined ? undefined : scores.get(command);
      if (before === undefined || score === undefined) totals.delete(command);
      else totals.set(command, before + score + bluntness(`${title} ${also}`.toLowerCase(), title.toLowerCase(), word));
    }
  }
  // Of two that fit alike, the shorter title says less beside what was typed.
  const rank = (c: Command): number =>
    totals.get(c)! - lately(c) * 0.2 + (isEnabled(c) ? 0 : 0.1) + c.title.length / 2000;
  return [...totals.keys()].sort((a, b) => rank(a) - rank(b));
}

/** How far a word is from standing there as it was typed: whole, at the beginning of one, within, or spelled otherwise. */
function bluntness(text: string, title: string, word: string): number {
  const all = text.split(/[^\p{L}\p{N}-]+/u);
  // A title that begins with it is the thing itself.
  if (title.startsWith(word)) return 0;
  if (all.includes(word)) return 0.1;
  if (all.some((w) => w.startsWith(word))) return 0.3;
  return text.includes(word) ? 0.6 : 1;
}
