import {
  type Box,
  type Mat4,
  QUAT_IDENTITY,
  type Steps,
  type Transform,
  type Vec3,
  add,
  cross,
  decompose,
  rotate,
  scale,
  sub,
} from '../../math';
import { type Part, type Project, pivotPoint } from '../../model';
import { type Surface, boxCoverSteps } from '../../mesh';
import type { Palette } from '../../palette';
import { type DrawInstance, type DrawList, listExtent } from '../../scene';
import type { VoxelGrid } from '../../voxel';
import { FileError } from '../file-error';
import { type Note } from '../notes';
import { ShipMaterials } from './ship-materials';
import {
  type ShipClip,
  type ShipMesh,
  type ShipMaking,
  type ShipCollider,
  type ShipModel,
  type ShipNode,
  type ShipPiece,
  type ShipProfile,
  type ShipShape,
} from './ship-model';
import { shapeOf, stretchSteps } from './ship-shapes';

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

const covers = new WeakMap<VoxelGrid, Map<number, readonly Box[]>>();
/** Boxes for a grid; memoised for as long as that lives. */
function* coverOf(grid: VoxelGrid, tolerance: number): Steps<readonly Box[]> {
  let known = covers.get(grid);
  if (!known) covers.set(grid, (known = new Map()));
  let boxes = known.get(tolerance);
  if (!boxes) known.set(tolerance, (boxes = yield* boxCoverSteps(grid, tolerance)));
  return boxes;
}

/** A model as it is put together; what of a project goes into it is said by `rig-model.ts` and `scene-model.ts`. */
export class ModelMaker {
  readonly nodes: ShipNode[] = [];
  private readonly meshes: ShipMesh[] = [];
  private readonly shapes: ShipShape[] = [];
  private readonly faces: number[] = [];
  readonly clips: ShipClip[] = [];
  readonly points: number[] = [];
  readonly colliders: ShipCollider[] = [];
  readonly notes: Note[] = [];
  private readonly materials: ShipMaterials;
  private readonly made = new Map<VoxelGrid, Map<string, number>>();
  /** Shapes by their surface, pivot and unit: colours of a placement's own make no second one. */
  private readonly shaped = new Map<Surface, Map<string, number>>();
  title: string;
  /** Project units in target units. */
  readonly unit: number;
  /** The node that everything hangs on, where the profile asks for one. */
  top: number | null = null;

  constructor(
    readonly project: Project,
    private readonly profile: ShipProfile,
    private readonly making: ShipMaking,
  ) {
    this.title = project.name;
    this.unit = project.metresPerUnit * profile.unitsPerMetre;
    this.materials = new ShipMaterials(project, project.colourways);
    for (const a of project.assets) this.materials.nameLooks(a.project);
  }

  finished(): ShipModel {
    const { nodes, meshes, shapes, clips, points, colliders, materials: m } = this;
    const shown = nodes.flatMap((n) => (n.mesh === null ? [] : [n.mesh]));
    if (shown.length === 0) throw new FileError('ship.noCubes', { title: this.title });
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
      colliders,
      counts: {
        nodes: nodes.length,
        parts: shown.length,
        clips: clips.length,
        colliders: colliders.length,
        vertices: sum((s) => shapes[s]!.positions.length / 3),
        triangles: sum((s) => shapes[s]!.indices.length / 3),
        faces: sum((s) => this.faces[s]!),
      },
      notes: this.notes,
    };
  }

  named(name: string, side: 'left' | 'right' | 'centre'): string {
    return this.profile.prefix + name + (side === 'centre' ? '' : this.profile.suffixes[side]);
  }

  node(name: string, parent: number | null, { t, q, s }: Transform, mesh: number | null = null): number {
    return this.nodes.push({ name, parent, t: scale(t, this.unit), q, s, mesh }) - 1;
  }

  /** One node at the top that turns axes and moves the origin, where the profile asks for it. */
  begin(list: DrawList): void {
    const { up, forward, origin } = this.profile;
    const u = AXES[up]!,
      f = AXES[forward]!;
    const turned = up !== '+y' || forward !== '+z';
    if (up[1] === forward[1]) throw new FileError('ship.axes', { up, forward });
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

  /** The mesh of something drawn, the same for the same cubes about the same pivot in the same colours; null when it is empty. */
  *meshOf({ geometry, palette }: DrawInstance, part: Part, metresPerUnit: number): Steps<number | null> {
    if (geometry.kind !== 'grid' || geometry.grid.count === 0) return null;
    const unit = part.cell * metresPerUnit * this.profile.unitsPerMetre;
    let ofGrid = this.made.get(geometry.grid);
    if (!ofGrid) this.made.set(geometry.grid, (ofGrid = new Map()));
    const key = `${part.id} ${part.pivot.join()} ${unit} ${this.materials.idOf(palette)}`;
    let mesh = ofGrid.get(key);
    if (mesh === undefined) {
      const pieces = yield* this.piecesOf(geometry.grid, part, palette, unit);
      mesh = this.meshes.push({ name: this.named(part.name, part.side), pieces }) - 1;
      ofGrid.set(key, mesh);
    }
    return mesh;
  }

  /** Boxes for what a node shows to bump into, where they are asked for. */
  *collide(node: number, { geometry }: DrawInstance, part: Part, metresPerUnit: number): Steps<void> {
    const { collider, tolerance } = this.making;
    if (collider === 'none' || geometry.kind !== 'grid') return;
    const unit = part.cell * metresPerUnit * this.profile.unitsPerMetre;
    const whole = geometry.grid.contentBox();
    const boxes = collider === 'one box' ? (whole ? [whole] : []) : yield* coverOf(geometry.grid, tolerance);
    const pivot = pivotPoint(part);
    for (const [i, { min, size }] of boxes.entries())
      this.colliders.push({
        node,
        name: `${this.nodes[node]!.name} collider${boxes.length > 1 ? ` ${i + 1}` : ''}`,
        middle: scale(sub(add(min, scale(size, 0.5)), pivot), unit),
        size: scale(size, unit),
      });
  }

  private *piecesOf(grid: VoxelGrid, part: Part, palette: Palette, unit: number): Steps<readonly ShipPiece[]> {
    const groups = this.materials.groups(palette);
    const stretches = yield* stretchSteps(grid, palette, this.materials, this.making);
    return stretches.map(({ group, surface }) => {
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
}
