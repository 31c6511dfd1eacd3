import { type Steps, type Vec3, matrixOf, mulMat, scale, translation } from '../../math';
import {
  type Clip,
  type Id,
  type Part,
  type Project,
  type Rig,
  composite,
  isWorn,
  keptAside,
  must,
  pivotPoint,
} from '../../model';
import { type DrawInstance, gather, gridGeometry } from '../../scene';
import { note } from '../notes';
import { type ModelMaker, NOWHERE } from './model-maker';
import { shippedBones, tracksOf } from './ship-clips';
import type { ShipTrack } from './ship-model';

/** A node for each bone, below it one with a mesh for each of its mounted parts, and the clips. */
export function* addRig(maker: ModelMaker): Steps<void> {
  const { project } = maker;
  const { rig } = project;
  const list = gather(project, { of: 'rig', alternates: 'all' });
  maker.begin(list);
  const bones = addBones(maker, rig);
  for (const t of rig.attachments) {
    const bone = bones.get(t.bone);
    if (bone !== undefined)
      maker.points.push(maker.node(maker.named(t.name, t.side), bone, { t: t.t, q: t.q, s: [1, 1, 1] }));
  }
  const aside = keptAside(project.parts);
  noteHidden(
    maker,
    rig.mounts.filter((m) => !aside.has(m.part)).map((m) => must(project.parts, m.part, 'part')),
  );
  const mounts = new Map<Id, number>();
  for (const [i, instance] of list.entries()) {
    const mount = must(rig.mounts, instance.source.mount!, 'mount');
    const part = must(project.parts, mount.part, 'part');
    const mesh = yield* maker.meshOf(instance, part, project.metresPerUnit);
    if (mesh !== null) {
      const s: Vec3 = isWorn(rig, mount) ? mount.s : [0, 0, 0];
      const above = mount.bone === null ? maker.top : bones.get(mount.bone)!;
      const node = maker.node(maker.named(part.name, part.side), above, { t: mount.t, q: mount.q, s }, mesh);
      const set = mount.alternateSet === null ? null : must(rig.alternateSets, mount.alternateSet, 'set of alternates');
      if (set) maker.nodes[node] = { ...maker.nodes[node]!, set: set.name };
      mounts.set(mount.id, node);
      // What is not worn is bumped into by nobody.
      if (isWorn(rig, mount)) yield* maker.collide(node, instance, part, project.metresPerUnit);
    }
    yield (i + 1) / list.length;
  }
  for (const clip of maker.profile.looks.clips ? project.clips : [])
    if (clip.ships) addClip(maker, clip, bones, mounts);
}

/** A part by itself, its pivot at the origin. */
export function partAlone(project: Project, part: Part): DrawInstance {
  const { cell } = part;
  return {
    geometry: gridGeometry(composite(part)),
    palette: must(project.palettes, part.palette, 'palette'),
    matrix: mulMat(matrixOf({ ...NOWHERE, s: [cell, cell, cell] }), translation(scale(pivotPoint(part), -1))),
    source: { path: [], part: part.id, mount: null, copy: 0 },
  };
}

/** A part by itself, from its pivot. */
export function* addPart(maker: ModelMaker, part: Part): Steps<void> {
  maker.title = part.name;
  noteLeftOut(maker, part);
  const instance = partAlone(maker.project, part);
  maker.begin([instance]);
  const mesh = yield* maker.meshOf(instance, part, maker.project.metresPerUnit);
  if (mesh === null) return;
  const node = maker.top!;
  maker.nodes[node] = { ...maker.nodes[node]!, name: maker.named(part.name, part.side), mesh };
  yield* maker.collide(node, instance, part, maker.project.metresPerUnit);
}

function addBones(maker: ModelMaker, rig: Rig): Map<Id, number> {
  const bones = new Map<Id, number>();
  const shipped = shippedBones(rig);
  const left = rig.bones.length - shipped.length;
  if (left > 0) maker.notes.push(note('controlsLeft', '', { n: left }));
  for (const b of shipped)
    bones.set(
      b.id,
      maker.node(maker.named(b.name, b.side), b.parent === null ? maker.top : bones.get(b.parent)!, b.rest),
    );
  return bones;
}

function noteHidden(maker: ModelMaker, parts: readonly Part[]): void {
  for (const part of parts) {
    if (part.hidden) maker.notes.push(note('partHidden', maker.named(part.name, part.side)));
    else noteLeftOut(maker, part);
  }
}

/** What is not in a part that is shipped. */
function noteLeftOut(maker: ModelMaker, part: Part): void {
  if (composite(part).count === 0) maker.notes.push(note('partEmpty', maker.named(part.name, part.side)));
  else if (part.layers.some((l) => l.hidden)) maker.notes.push(note('layersHidden', part.name));
}

function addClip(maker: ModelMaker, clip: Clip, bones: ReadonlyMap<Id, number>, mounts: ReadonlyMap<Id, number>): void {
  const { rig } = maker.project;
  const { unit } = maker;
  if (clip.lanes.length + clip.swaps.length === 0) {
    maker.notes.push(note('clipEmpty', clip.name));
    return;
  }
  let known: ShipTrack[] | null = null;
  const tracks = (): ShipTrack[] => (known ??= tracksOf(clip, rig, bones, mounts, unit));
  maker.clips.push({ name: clip.name, tracks });
}
