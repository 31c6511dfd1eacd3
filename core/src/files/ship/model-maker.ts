import {
  type Mat4,
  MAT4_IDENTITY,
  QUAT_IDENTITY,
  type Steps,
  type Transform,
  type Vec3,
  decompose,
  cross,
  invertMat,
  matrixOf,
  mulMat,
  rotate,
  scale,
  translation,
} from '../../math';
import {
  type Clip,
  type Id,
  type Part,
  type Placement,
  type Project,
  type Rig,
  composite,
  isWorn,
  lookUp,
  must,
  pivotPoint,
} from '../../model';
import type { Surface } from '../../mesh';
import type { Palette } from '../../palette';
import { type DrawInstance, type DrawList, gather, gridGeometry, listExtent } from '../../scene';
import type { VoxelGrid } from '../../voxel';
import { FileError } from '../file-error';
import { type Note, note } from '../notes';
import { PlacementTree } from './placement-tree';
import { shippedBones, tracksOf } from './ship-clips';
import { ShipMaterials } from './ship-materials';
import {
  type ShipClip,
  type ShipMesh,
  type ShipModel,
  type ShipNode,
  type ShipPiece,
  type ShipProfile,
  type ShipShape,
  type ShipTrack,
} from './ship-model';
import { shapeOf, stretchesOf } from './ship-shapes';

const NOWHERE: Transform = { t: [0, 0, 0], q: QUAT_IDENTITY, s: [1, 1, 1] };
const AXES: Readonly<Record<string, Vec3>> = {
  '+x': [1, 0, 0],
  '-x': [-1, 0, 0],
  '+y': [0, 1, 0],
  '-y': [0, -1, 0],
  '+z': [0, 0, 1],
  '-z': [0, 0, -1],
};

/** A model as it is put together. */
export class ModelMaker {
  private readonly nodes: ShipNode[] = [];
  private readonly meshes: ShipMesh[] = [];
  private readonly shapes: ShipShape[] = [];
  private readonly faces: number[] = [];
  private readonly clips: ShipClip[] = [];
  private readonly points: number[] = [];
  private readonly notes: Note[] = [];
  private readonly materials: ShipMaterials;
  private readonly made = new Map<VoxelGrid, Map<string, number>>();
  /** Shapes by their surface, pivot and unit: colours of a placement's own make no second one. */
  private readonly shaped = new Map<Surface, Map<string, number>>();
  private title: string;
  /** Project units in target units. */
  private readonly unit: number;
  private top: number | null = null;

  constructor(
    private readonly project: Project,
    private readonly profile: ShipProfile,
  ) {
    this.title = project.name;
    this.unit = project.metresPerUnit * profile.unitsPerMetre;
    this.materials = new ShipMaterials(project, project.colourways);
    for (const a of project.assets) this.materials.nameLooks(a.project);
  }

  *addRig(): Steps<void> {
    const { project } = this;
    const { rig } = project;
    const list = gather(project, { of: 'rig', alternates: 'all' });
    this.begin(list);
    const bones = this.addBones(rig);
    for (const t of rig.attachments) {
      const bone = bones.get(t.bone);
      if (bone !== undefined)
        this.points.push(this.node(this.named(t.name, t.side), bone, { t: t.t, q: t.q, s: [1, 1, 1] }));
    }
    this.noteHidden(rig.mounts.map((m) => must(project.parts, m.part, 'part')));
    const mounts = new Map<Id, number>();
    for (const [i, instance] of list.entries()) {
      const mount = must(rig.mounts, instance.source.mount!, 'mount');
      const part = must(project.parts, mount.part, 'part');
      const mesh = this.meshOf(instance, part, project.metresPerUnit);
      if (mesh !== null) {
        const s: Vec3 = isWorn(rig, mount) ? mount.s : [0, 0, 0];
        const above = mount.bone === null ? this.top : bones.get(mount.bone)!;
        mounts.set(mount.id, this.node(this.named(part.name, part.side), above, { t: mount.t, q: mount.q, s }, mesh));
      }
      yield (i + 1) / list.length;
    }
    for (const clip of project.clips) if (clip.ships) this.addClip(clip, bones, mounts);
  }

  addPart(part: Part): void {
    this.title = part.name;
    if (part.hidden) this.notes.push(note('partHidden', this.named(part.name, part.side)));
    this.noteHidden([part]);
    const palette = must(this.project.palettes, part.palette, 'palette');
    const toUnits = mulMat(
      matrixOf({ ...NOWHERE, s: [part.cell, part.cell, part.cell] }),
      translation(scale(pivotPoint(part), -1)),
    );
    const instance: DrawInstance = {
      geometry: gridGeometry(composite(part)),
      palette,
      matrix: toUnits,
      source: { path: [], part: part.id, mount: null, copy: 0 },
    };
    this.begin([instance]);
    const mesh = this.meshOf(instance, part, this.project.metresPerUnit);
    if (mesh !== null) this.node(this.named(part.name, part.side), this.top, NOWHERE, mesh);
  }

  /** @param root – only this placement and what hangs on it, standing where its origin is; null for all */
  *addScene(id: Id, root: Id | null): Steps<void> {
    const { project } = this;
    const scene = must(project.scenes, id, 'scene');
    const placements = new Map(scene.placements.flat().map((p) => [p.id, p]));
    const tree = new PlacementTree(placements);
    if (root !== null) must(scene.placements.flat(), root, 'placement');
    this.title = root === null ? scene.name : placements.get(root)!.name;
    const all = gather(project, { of: 'scene', scene: id });
    const back = root === null ? MAT4_IDENTITY : invertMat(tree.world(root));
    const list = all
      .filter((i) => root === null || tree.hangsOn(i.source.path[0]!, root))
      .map((i): DrawInstance => (root === null ? i : { ...i, matrix: mulMat(back, i.matrix) }));
    const cubes = list.filter((i) => i.geometry.kind === 'cube').length;
    if (cubes > 0) this.notes.push(note('cubesLeft', '', { count: cubes }));
    const shown = new Set(all.map((i) => i.source.path[0]!));
    const hidden = [...placements.values()].filter((p) => p.shows.kind !== 'group' && !shown.has(p.id)).length;
    if (hidden > 0 && root === null) this.notes.push(note('placementsHidden', '', { count: hidden }));
    this.begin(list);
    const made = new Map<Id, number>();
    const nodeOf = (p: Placement): number => {
      const known = made.get(p.id);
      if (known !== undefined) return known;
      const above = p.id === root || p.parent === null ? undefined : placements.get(p.parent);
      const n = this.node(this.named(p.name, 'centre'), above ? nodeOf(above) : this.top, p.id === root ? NOWHERE : p);
      made.set(p.id, n);
      return n;
    };
    for (const [i, instance] of list.entries()) {
      this.addInstance(
        instance,
        placements.get(instance.source.path[0]!)!,
        nodeOf,
        mulMat(back, tree.world(instance.source.path[0]!)),
      );
      yield (i + 1) / list.length;
    }
  }

  /** Something a placement shows: on the node of the placement where it stands as that does, else on a node of its own. */
  private addInstance(i: DrawInstance, p: Placement, nodeOf: (p: Placement) => number, world: Mat4): void {
    if (i.geometry.kind !== 'grid') return;
    const home = p.shows.kind === 'asset' ? must(this.project.assets, p.shows.asset, 'asset').project : this.project;
    const part = lookUp(home.parts, i.source.part!)!;
    const mesh = this.meshOf(i, part, home.metresPerUnit);
    if (mesh === null) return;
    if (i.source.copy === 0 && p.shows.kind === 'part') {
      const n = nodeOf(p);
      this.nodes[n] = { ...this.nodes[n]!, mesh };
      return;
    }
    // What stands here is made of project units of the scene, its mesh of those of its own project.
    const k = home.metresPerUnit / this.project.metresPerUnit;
    const c = 1 / (part.cell * k);
    const stands = mulMat(i.matrix, mulMat(translation(pivotPoint(part)), matrixOf({ ...NOWHERE, s: [c, c, c] })));
    const name = this.named(p.shows.kind === 'part' ? p.name : part.name, part.side);
    if (i.source.copy > 0) this.node(`${name} ${i.source.copy + 1}`, this.top, this.squared(stands, name), mesh);
    else this.node(name, nodeOf(p), this.squared(mulMat(invertMat(world), stands), name), mesh);
  }

  /** A matrix as a node can hold it; what leans under uneven scaling is noted. */
  private squared(m: Mat4, name: string): Transform {
    const out = decompose(m);
    const again = matrixOf(out);
    if (m.some((v, i) => Math.abs(v - again[i]!) > 1e-4 * Math.max(1, Math.abs(v))))
      this.notes.push(note('squared', name));
    return out;
  }

  finished(): ShipModel {
    const { nodes, meshes, shapes, clips, points, materials: m } = this;
    const shown = nodes.flatMap((n) => (n.mesh === null ? [] : [n.mesh]));
    if (shown.length === 0) throw new FileError(`"${this.title}" has no cubes to export. Add some in Build first.`);
    const sum = (of: (shape: number) => number): number =>
      shown.reduce((n, mesh) => n + meshes[mesh]!.pieces.reduce((k, p) => k + of(p.shape), 0), 0);
    return {
      name: this.title,
      nodes,
      meshes,
      shapes,
      materials: m.materials,
      pictures: m.pictures,
      looks: m.looks.map((w) => w.name),
      clips,
      points,
      counts: {
        nodes: nodes.length,
        parts: shown.length,
        clips: clips.length,
        vertices: sum((s) => shapes[s]!.positions.length / 3),
        triangles: sum((s) => shapes[s]!.indices.length / 3),
        faces: sum((s) => this.faces[s]!),
      },
      notes: this.notes,
    };
  }

  private named(name: string, side: 'left' | 'right' | 'centre'): string {
    return this.profile.prefix + name + (side === 'centre' ? '' : this.profile.suffixes[side]);
  }

  private node(name: string, parent: number | null, { t, q, s }: Transform, mesh: number | null = null): number {
    return this.nodes.push({ name, parent, t: scale(t, this.unit), q, s, mesh }) - 1;
  }

  /** One node at the top that turns axes and moves the origin, where the profile asks for it. */
  private begin(list: DrawList): void {
    const { up, forward, origin } = this.profile;
    const u = AXES[up]!,
      f = AXES[forward]!;
    const turned = up !== '+y' || forward !== '+z';
    if (up[1] === forward[1])
      throw new FileError(`A file cannot be ${up} up and look along ${forward}. Choose another way forward.`);
    const extent = origin === 'pivot' ? null : listExtent(list);
    if (!turned && !extent) return;
    const q = turned
      ? decompose([...cross(u, f), 0, ...u, 0, ...f, 0, 0, 0, 0, 1] as unknown as Mat4).q
      : QUAT_IDENTITY;
    let t: Vec3 = [0, 0, 0];
    if (extent) {
      const { lo, hi } = extent;
      const middle: Vec3 = [(lo[0] + hi[0]) / 2, (lo[1] + hi[1]) / 2, (lo[2] + hi[2]) / 2];
      const at: Vec3 = origin === 'corner' ? lo : origin === 'base' ? [middle[0], lo[1], middle[2]] : middle;
      t = rotate(q, scale(at, -1));
    }
    this.top = this.node(this.title, null, { t, q, s: [1, 1, 1] });
  }

  private addBones(rig: Rig): Map<Id, number> {
    const bones = new Map<Id, number>();
    const shipped = shippedBones(rig);
    const left = rig.bones.length - shipped.length;
    if (left > 0) this.notes.push(note('controlsLeft', '', { count: left }));
    for (const b of shipped)
      bones.set(
        b.id,
        this.node(this.named(b.name, b.side), b.parent === null ? this.top : bones.get(b.parent)!, b.rest),
      );
    return bones;
  }

  private noteHidden(parts: readonly Part[]): void {
    for (const part of parts) {
      const name = this.named(part.name, part.side);
      if (part.hidden) this.notes.push(note('partHidden', name));
      else if (composite(part).count === 0) this.notes.push(note('partEmpty', name));
      else if (part.layers.some((l) => l.hidden)) this.notes.push(note('layersHidden', part.name));
    }
  }

  /** The mesh of something drawn, the same for the same cubes about the same pivot in the same colours; null when it is empty. */
  private meshOf({ geometry, palette }: DrawInstance, part: Part, metresPerUnit: number): number | null {
    if (geometry.kind !== 'grid' || geometry.grid.count === 0) return null;
    const unit = part.cell * metresPerUnit * this.profile.unitsPerMetre;
    let ofGrid = this.made.get(geometry.grid);
    if (!ofGrid) this.made.set(geometry.grid, (ofGrid = new Map()));
    const key = `${part.id} ${part.pivot.join()} ${unit} ${this.materials.idOf(palette)}`;
    let mesh = ofGrid.get(key);
    if (mesh === undefined) {
      const pieces = this.piecesOf(geometry.grid, part, palette, unit);
      mesh = this.meshes.push({ name: this.named(part.name, part.side), pieces }) - 1;
      ofGrid.set(key, mesh);
    }
    return mesh;
  }

  private piecesOf(grid: VoxelGrid, part: Part, palette: Palette, unit: number): readonly ShipPiece[] {
    const groups = this.materials.groups(palette);
    return stretchesOf(grid, palette, this.materials).map(({ group, surface }) => {
      const shape = this.shapeFor(surface, part, unit);
      const g = groups[group]!;
      return { shape, material: this.materials.of(palette, g), looks: this.materials.looksOf(palette, g) };
    });
  }

  private shapeFor(surface: Surface, part: Part, unit: number): number {
    let known = this.shaped.get(surface);
    if (!known) this.shaped.set(surface, (known = new Map()));
    const key = `${part.pivot.join()} ${unit}`;
    let shape = known.get(key);
    if (shape === undefined) {
      shape = this.shapes.push(shapeOf(surface, pivotPoint(part), unit)) - 1;
      this.faces.push(surface.faces);
      known.set(key, shape);
    }
    return shape;
  }

  private addClip(clip: Clip, bones: ReadonlyMap<Id, number>, mounts: ReadonlyMap<Id, number>): void {
    const { rig } = this.project;
    const { unit } = this;
    if (clip.lanes.length + clip.swaps.length === 0) {
      this.notes.push(note('clipEmpty', clip.name));
      return;
    }
    let known: ShipTrack[] | null = null;
    const tracks = (): ShipTrack[] => (known ??= tracksOf(clip, rig, bones, mounts, unit));
    this.clips.push({ name: clip.name, tracks });
  }
}
