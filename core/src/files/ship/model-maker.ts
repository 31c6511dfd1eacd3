import {
  type Mat4,
  QUAT_IDENTITY,
  type Steps,
  type Transform,
  type Vec3,
  cross,
  decompose,
  rotate,
  scale,
} from '../../math';
import { type Part, type Project, pivotPoint } from '../../model';
import { countFaces } from '../../mesh';
import type { Palette } from '../../palette';
import { type DrawInstance, type DrawList, listExtent } from '../../scene';
import type { VoxelGrid } from '../../voxel';
import { FileError } from '../file-error';
import { type Note } from '../notes';
import { ShipMaterials } from './ship-materials';
import {
  type ShipClip,
  type ShipMesh,
  type ShipCollider,
  type ShipCover,
  type ShipModel,
  type ShipNode,
  type ShipShape,
} from './ship-model';
import { type ShipProfile, workable } from './ship-profile';
import {
  type Colouring,
  type SecondPlaces,
  type Stretch,
  colouringOf,
  coverOf,
  secondPlaces,
  shapeOf,
  stretchSteps,
} from './ship-shapes';
import { ShipSlots } from './ship-slots';
import { colliderShapes, namedColliders } from './ship-colliders';
import type { HiddenFaces } from './hidden-faces';
import { spelt } from './ship-names';

/** A node where its parent is. */
export const NOWHERE: Transform = { t: [0, 0, 0], q: QUAT_IDENTITY, s: [1, 1, 1] };
const AXES: Readonly<Record<string, Vec3>> = {
  '+x': [1, 0, 0],
  '-x': [-1, 0, 0],
  '+y': [0, 1, 0],
  '-y': [0, -1, 0],
  '+z': [0, 0, 1],
  '-z': [0, 0, -1],
};

/** Cubes from which on a part's faces are counted first, and how many faces a file is made of at most. */
const MANY = 500_000,
  MOST_FACES = 6_000_000;

/** What becomes a shape once the pictures of everything are laid out. */
interface Pending {
  readonly stretch: Stretch;
  readonly slot: number;
  readonly from: { readonly part: Part; readonly unit: number; readonly second: SecondPlaces | null };
  readonly colouring: Colouring;
  readonly palette: Palette;
}

/** A model as it is put together; what of a project goes into it is said by `rig-model.ts` and `scene-model.ts`. */
export class ModelMaker {
  readonly nodes: ShipNode[] = [];
  private readonly meshes: ShipMesh[] = [];
  private readonly pending: Pending[] = [];
  private readonly covers: ShipCover[] = [];
  readonly clips: ShipClip[] = [];
  readonly points: number[] = [];
  readonly colliders: ShipCollider[] = [];
  readonly notes: Note[] = [];
  private readonly materials: ShipMaterials;
  private readonly made = new Map<VoxelGrid, Map<string, number>>();
  /** Shapes by their surface, slot, pivot and unit: colours of a placement's own make no second one. */
  private readonly shaped = new Map<Stretch, Map<string, number>>();
  private readonly coloured = new Map<Stretch, Map<string, Colouring>>();
  private readonly seconds = new Map<readonly Stretch[], readonly SecondPlaces[]>();
  private readonly slots: ShipSlots;
  readonly profile: ShipProfile;
  /** Faces that are left out; null for none. */
  hidden: HiddenFaces | null = null;
  title: string;
  /** Project units in target units. */
  readonly unit: number;
  /** The node that everything hangs on. */
  top: number | null = null;

  constructor(
    readonly project: Project,
    wishes: ShipProfile,
  ) {
    this.profile = workable(wishes);
    this.title = project.name;
    this.unit = project.metresPerUnit * this.profile.place.unitsPerMetre;
    this.slots = new ShipSlots(this.profile.mesh);
    this.materials = new ShipMaterials(
      project,
      this.profile.looks.colourways === 'variants' ? project.colourways : [],
      this.profile,
    );
    for (const a of project.assets) this.materials.nameLooks(a.project);
  }

  /** The model, in pieces; its pictures are laid out only now, when all that they show is known. */
  *finished(): Steps<ShipModel> {
    const { nodes, meshes, clips, points, colliders, materials: m } = this;
    if (!nodes.some((n) => n.mesh !== null)) throw new FileError('ship.noCubes', { title: this.title });
    const shapes: ShipShape[] = [];
    for (const [i, { stretch, slot, from, colouring, palette }] of this.pending.entries()) {
      shapes.push(shapeOf(stretch, slot, from, colouring, palette, m, this.profile));
      yield i / this.pending.length;
    }
    return {
      name: this.title,
      nodes,
      meshes,
      shapes,
      materials: m.materials,
      pictures: m.drawn(),
      looks: m.looks.map((w) => w.name),
      clips,
      joints: [],
      points,
      colliders,
      apart: null,
      padding: this.pending.some((p) => p.colouring.kind === 'atlas') ? this.profile.picture.padding : null,
      covers: this.covers,
      notes: this.notes,
    };
  }

  named(name: string, side: 'left' | 'right' | 'centre'): string {
    return spelt(name, side, this.profile.names);
  }

  node(name: string, parent: number | null, { t, q, s }: Transform, mesh: number | null = null): number {
    return this.nodes.push({ name, parent, t: scale(t, this.unit), q, s, mesh, skinned: false }) - 1;
  }

  /** One node at the top, named as the whole, that turns axes and moves the origin as the profile asks for. */
  begin(list: DrawList): void {
    const { up, forward, origin } = this.profile.place;
    const u = AXES[up]!,
      f = AXES[forward]!;
    const turned = up !== '+y' || forward !== '+z';
    const extent = origin === 'pivot' ? null : listExtent(list);
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
    this.top = this.node(this.named(this.title, 'centre'), null, { t, q, s: [1, 1, 1] });
  }

  /** The mesh of something drawn, the same for the same cubes about the same pivot in the same colours; null when it is empty. */
  *meshOf({ geometry, palette }: DrawInstance, part: Part, metresPerUnit: number): Steps<number | null> {
    if (geometry.kind !== 'grid' || geometry.grid.count === 0) return null;
    const unit = part.cell * metresPerUnit * this.profile.place.unitsPerMetre;
    let ofGrid = this.made.get(geometry.grid);
    if (!ofGrid) this.made.set(geometry.grid, (ofGrid = new Map()));
    const key = `${part.id} ${part.pivot.join()} ${unit} ${this.materials.idOf(palette)}`;
    let mesh = ofGrid.get(key);
    if (mesh === undefined) {
      const made = yield* this.piecesOf(geometry.grid, part, palette, unit);
      mesh = this.meshes.push({ name: this.named(part.name, part.side), part: part.id, ...made }) - 1;
      ofGrid.set(key, mesh);
    }
    return mesh;
  }

  /** What a node shows for things to bump into, where it is asked for. */
  *collide(node: number, { geometry }: DrawInstance, part: Part, metresPerUnit: number): Steps<void> {
    const { shape, of } = this.profile.collider;
    if (shape === 'none' || of === 'whole' || geometry.kind !== 'grid') return;
    const unit = part.cell * metresPerUnit * this.profile.place.unitsPerMetre;
    const shapes = yield* colliderShapes(geometry.grid, pivotPoint(part), unit, this.profile.collider);
    this.colliders.push(...namedColliders(shapes, node, this.nodes[node]!.name, this.profile));
  }

  private *piecesOf(
    grid: VoxelGrid,
    part: Part,
    palette: Palette,
    unit: number,
  ): Steps<Pick<ShipMesh, 'pieces' | 'second'>> {
    const { materials, slots, profile } = this;
    // Noise fills memory before it fills a file: it is counted first.
    if (grid.count > MANY) {
      const now = countFaces(grid);
      if (now > MOST_FACES) throw new FileError('ship.tooManyFaces', { title: part.name, now, most: MOST_FACES });
    }
    const dropped = this.hidden?.of.get(part.id);
    const stretches = yield* stretchSteps(grid, part, palette, materials, slots, profile.mesh, dropped);
    const seconds = profile.picture.second ? this.secondOf(stretches) : null;
    const pieces = stretches.flatMap((stretch, i) =>
      stretch.slots.map((slot) => {
        const name = slots.names[slot]!;
        const shape = this.shapeFor(stretch, slot, palette, { part, unit, second: seconds?.[i] ?? null });
        return {
          shape,
          material: materials.of(palette, name, stretch.transparent),
          looks: materials.looksOf(palette, name, stretch.transparent),
        };
      }),
    );
    return { pieces, second: seconds?.[0] ? [seconds[0].width, seconds[0].height] : null };
  }

  private secondOf(stretches: readonly Stretch[]): readonly SecondPlaces[] {
    let known = this.seconds.get(stretches);
    if (!known) this.seconds.set(stretches, (known = secondPlaces(stretches)));
    return known;
  }

  private shapeFor(stretch: Stretch, slot: number, palette: Palette, from: Pending['from']): number {
    let known = this.shaped.get(stretch);
    if (!known) this.shaped.set(stretch, (known = new Map()));
    const base = this.materials.baseOf(palette);
    const key = `${slot} ${this.materials.idOf(base)} ${from.part.pivot.join()} ${from.unit}`;
    let shape = known.get(key);
    if (shape === undefined) {
      const colourKey = `${this.materials.idOf(base)}`;
      let ofStretch = this.coloured.get(stretch);
      if (!ofStretch) this.coloured.set(stretch, (ofStretch = new Map()));
      let colouring = ofStretch.get(colourKey);
      if (!colouring)
        ofStretch.set(colourKey, (colouring = colouringOf(stretch, base, this.materials, this.slots, this.profile)));
      shape = this.pending.push({ stretch, slot, from, colouring, palette: base }) - 1;
      this.covers.push(coverOf(stretch, slot));
      known.set(key, shape);
    }
    return shape;
  }
}
