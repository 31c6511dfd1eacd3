import type { MeshClip, MeshScene } from '../../codec';
import type { MeshPart } from '../../intake';
import {
  type Mat4,
  type Quat,
  type Transform,
  type Vec3,
  add,
  decompose,
  invertQuat,
  matrixOf,
  relativeTransform,
  rotate,
  scale,
  transformDirection,
} from '../../math';
import {
  type AlternateSet,
  type Attachment,
  type Bone,
  type Clip,
  type Id,
  type Mount,
  PLAIN_BONE,
  type Part,
  type Project,
  type Side,
  type SwapLane,
  freeName,
  idsFrom,
  makeMount,
  makePart,
  makeProject,
  sideOfName,
} from '../../model';
import type { Palette } from '../../palette';
import { type Exchanged, exchangedNodes, swapsOf } from './alternates';
import { type MovedNode, clipOf } from './clips';

/** How a mesh's parts came to be. */
export interface MeshMade {
  readonly scene: MeshScene;
  readonly parts: readonly MeshPart[];
  /** Where nodes stand at rest, in cubes. */
  readonly worlds: readonly Mat4[];
  readonly bones: boolean;
  readonly clips: boolean;
  /** Cubes along a unit of the scene. */
  readonly cubes: number;
}

/**
 * A project of what was in a mesh: parts where they stand at rest, the tree of nodes as bones with their joints, named places, and clips.
 * The same for the same mesh.
 */
export function projectOfMesh(name: string, palette: Palette, made: MeshMade): Project {
  const newId = idsFrom(name);
  const empty = makeProject(newId(), name, newId);
  const exchanged = made.bones ? exchangedNodes(made.scene) : [];
  const tree = new NodeTree(made, new Set(exchanged.flatMap((e) => e.nodes)));
  const mountOf = new Map<number, Id>();
  const parts: Part[] = [],
    mounts: Mount[] = [];
  for (const p of made.parts) {
    const own = sideOfName(p.name.trim().slice(0, 110) || name);
    const part = named(parts, own, makePart(newId(), newId(), '', palette.id, p.grid.contentBox() ?? p.grid.bounds));
    const bone = p.node === null ? null : tree.boneFor(p.node, newId);
    const world = bone === null ? null : tree.standing(bone);
    // Where nodes are at no place of their own, a part turns about the middle of its base.
    const told = made.scene.pivots ? (p.pivot?.at ?? (bone === null ? null : halfCubes(tree.joint(p.node!)))) : null;
    const placed = {
      ...part,
      cell: p.cell,
      pivot: told ?? part.pivot,
      layers: [{ ...part.layers[0]!, grid: p.grid.withBounds(part.bounds) }],
    };
    parts.push(placed);
    const at = standingOf(placed, p, made.cubes);
    const mount = makeMount(newId(), placed.id, bone);
    if (p.node !== null && !mountOf.has(p.node)) mountOf.set(p.node, mount.id);
    mounts.push({ ...mount, ...(world ? exact(relativeTransform(world, at)) : at) });
  }
  if (made.bones) tree.addAll(newId);
  const sets = exchanged.flatMap((of): { of: Exchanged; set: AlternateSet }[] => {
    if (!of.nodes.some((i) => mountOf.has(i))) return [];
    const name = (of.name ?? made.scene.nodes[of.nodes[0]!]!.name).trim().slice(0, 110) || 'set';
    return [{ of, set: { id: newId(), name, worn: of.worn === null ? null : (mountOf.get(of.worn) ?? null) } }];
  });
  const setOf = new Map(sets.flatMap(({ of, set }) => of.nodes.map((i) => [mountOf.get(i), set.id] as const)));
  const clips =
    made.clips && made.bones
      ? clipsOf(made.scene, tree, newId, (c) => sets.flatMap(({ of, set }) => swapsOf(c, of, set.id, mountOf) ?? []))
      : [];
  return {
    ...empty,
    palettes: [palette],
    parts,
    rig: {
      ...empty.rig,
      bones: tree.bones(),
      mounts: mounts.map((m) => ({ ...m, alternateSet: setOf.get(m.id) ?? null })),
      alternateSets: sets.map((s, i) => ({
        ...s.set,
        name: freeName(
          s.set.name,
          sets.slice(0, i).map((o) => o.set.name),
        ),
      })),
      attachments: made.bones ? tree.points(newId) : [],
    },
    clips,
  };
}

/** Where a part's pivot stands, in cubes. */
function standingOf(part: Part, { pivot, cell }: MeshPart, cubes: number): Transform {
  const half = part.pivot.map((v) => v / 2) as unknown as Vec3;
  if (!pivot) return { t: half, q: [0, 0, 0, 1], s: [1, 1, 1] };
  const { t, q } = pivot.frame;
  const from = part.pivot.map((v, a) => ((v - pivot.at[a]!) / 2) * cell) as unknown as Vec3;
  return { t: add(scale(t, cubes), rotate(q, from)), q, s: [1, 1, 1] };
}

/** A record under a name that is free on its side. */
function named<R extends { name: string; side: Side }>(
  list: readonly R[],
  wanted: { name: string; side: Side },
  of: R,
): R {
  const free = freeName(
    wanted.name || 'part',
    list.filter((o) => o.side === wanted.side).map((o) => o.name),
  );
  return { ...of, name: free, side: wanted.side };
}

const halfCubes = (p: Vec3): Vec3 => p.map((v) => Math.round(v * 2) + 0) as unknown as Vec3;
/** Without the last digits that turning there and back leaves. */
const exact = ({ t, q, s }: Transform): Transform => {
  const whole = (v: number): number => Math.round(v * 1e9) / 1e9 + 0;
  return {
    t: t.map(whole) as unknown as Vec3,
    q: q.map(whole) as unknown as Quat,
    s: s.map(whole) as unknown as Vec3,
  };
};

/** Which nodes become bones: those that others hang on, those that move, and those that show nothing. */
class NodeTree {
  private readonly children: number[][];
  private readonly moves: ReadonlySet<number>;
  private readonly made = new Map<number, Bone>();
  private readonly worlds = new Map<Id, Transform>();

  /** @param exchanged – nodes that clips only show or hide */
  constructor(
    private readonly of: MeshMade,
    private readonly exchanged: ReadonlySet<number>,
  ) {
    const { nodes, clips } = of.scene;
    this.children = nodes.map(() => []);
    nodes.forEach((n, i) => n.parent !== null && this.children[n.parent]!.push(i));
    this.moves = new Set(clips.flatMap((c) => c.tracks.map((t) => t.node)));
  }

  /** Where a node's joint is, in cubes. */
  joint(node: number): Vec3 {
    const m = this.of.worlds[node]!;
    return [m[12]!, m[13]!, m[14]!];
  }
  standing(bone: Id): Transform {
    return this.worlds.get(bone)!;
  }

  private isBone(i: number): boolean {
    const n = this.of.scene.nodes[i]!;
    if (n.role !== 'node') return false;
    return (this.moves.has(i) && !this.exchanged.has(i)) || n.shapes.length === 0 || this.below(i).length > 0;
  }
  /** What hangs on a node and is no piece of it. */
  private below(i: number): number[] {
    return this.children[i]!.filter((c) => this.of.scene.nodes[c]!.role !== 'collider');
  }
  /** The bone that a node's part is on: its own, or that of what it hangs on. */
  boneFor(node: number, newId: () => Id): Id | null {
    if (!this.of.bones) return null;
    for (let at: number | null = node; at !== null; at = this.of.scene.nodes[at]!.parent)
      if (this.isBone(at)) return this.bone(at, newId).id;
    return null;
  }

  private bone(i: number, newId: () => Id): Bone {
    const known = this.made.get(i);
    if (known) return known;
    const n = this.of.scene.nodes[i]!;
    let above: Bone | null = null;
    for (let at = n.parent; at !== null && !above; at = this.of.scene.nodes[at]!.parent)
      if (this.isBone(at)) above = this.bone(at, newId);
    const { t, q } = decompose(this.of.worlds[i]!);
    const world: Transform = { t, q, s: [1, 1, 1] };
    const rest = exact(above ? relativeTransform(this.worlds.get(above.id)!, world) : world);
    const own = sideOfName(n.name.trim().slice(0, 110) || 'bone');
    const bone = named([...this.made.values()], own, {
      ...PLAIN_BONE,
      ...{ id: newId(), name: '', side: 'centre' as Side, parent: above?.id ?? null, rest },
    });
    this.made.set(i, bone);
    this.worlds.set(bone.id, world);
    return bone;
  }

  addAll(newId: () => Id): void {
    this.of.scene.nodes.forEach((_, i) => this.isBone(i) && this.bone(i, newId));
  }
  /** Those above first. */
  bones(): Bone[] {
    return [...this.made.values()];
  }

  points(newId: () => Id): Attachment[] {
    const out: Attachment[] = [];
    this.of.scene.nodes.forEach((n, i) => {
      const bone = n.role === 'point' && n.parent !== null ? this.boneFor(n.parent, newId) : null;
      if (bone === null) return;
      const { t, q } = decompose(this.of.worlds[i]!);
      const at = exact(relativeTransform(this.standing(bone), { t, q, s: [1, 1, 1] }));
      out.push(
        named(out, sideOfName(n.name.trim().slice(0, 110) || 'point'), {
          id: newId(),
          name: '',
          side: 'centre',
          bone,
          t: at.t,
          q: at.q,
        }),
      );
    });
    return out;
  }

  /** Bones that move as their nodes did. */
  moved(): Map<number, MovedNode> {
    const { nodes } = this.of.scene;
    return new Map(
      [...this.made].map(([i, bone]): [number, MovedNode] => {
        const n = nodes[i]!;
        const { cubes } = this.of;
        const above =
          n.parent === null
            ? matrixOf({ t: [0, 0, 0], q: [0, 0, 0, 1], s: [cubes, cubes, cubes] })
            : this.of.worlds[n.parent]!;
        const back = bone.parent === null ? ([0, 0, 0, 1] as const) : invertQuat(this.worlds.get(bone.parent)!.q);
        return [
          i,
          {
            bone: bone.id,
            rest: n.rest,
            shift: (d) => exact({ t: rotate(back, transformDirection(above, d)), q: [0, 0, 0, 1], s: [1, 1, 1] }).t,
          },
        ];
      }),
    );
  }
}

function clipsOf(scene: MeshScene, tree: NodeTree, newId: () => Id, swaps: (clip: MeshClip) => SwapLane[]): Clip[] {
  const moved = tree.moved(),
    out: Clip[] = [];
  for (const c of scene.clips) {
    const name = freeName(
      c.name.trim().slice(0, 110) || 'clip',
      out.map((o) => o.name),
    );
    const moves = clipOf(c, newId(), name, moved),
      clip = withSwaps(moves, swaps(c));
    if (clip.lanes.length + clip.swaps.length > 0) out.push(clip);
  }
  return out;
}

const withSwaps = (clip: Clip, swaps: SwapLane[]): Clip => ({
  ...clip,
  swaps,
  length: Math.max(clip.length, ...swaps.map((l) => l.keys.at(-1)!.time)),
});
