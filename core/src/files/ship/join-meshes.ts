import {
  type Mat4,
  MAT4_IDENTITY,
  QUAT_IDENTITY,
  decompose,
  invertMat,
  matrixOf,
  mulMat,
  mulQuat,
  normalize,
  scale,
  transformDirection,
  transformPoint,
} from '../../math';
import { packSkyline } from '../../mesh';
import { note } from '../notes';
import {
  type ShipCollider,
  type ShipCover,
  type ShipMesh,
  type ShipModel,
  type ShipNode,
  type ShipPiece,
  type ShipShape,
  countsOf,
} from './ship-model';
import type { ShipProfile } from './ship-profile';

/** Where every node stands at rest. */
export function restWorlds(nodes: readonly ShipNode[]): Mat4[] {
  const worlds: Mat4[] = [];
  for (const { parent, t, q, s } of nodes) {
    const local = matrixOf({ t, q, s });
    worlds.push(parent === null ? local : mulMat(worlds[parent]!, local));
  }
  return worlds;
}

/** A mesh that goes into a joined one. */
interface Share {
  readonly node: number;
  readonly mesh: ShipMesh;
  /** From its own origin to that of the joined mesh. */
  readonly to: Mat4;
  /** The place of the joint that its vertices follow; null without a skin. */
  readonly joint: number | null;
}

/**
 * A model with its meshes joined as the profile wishes: those of a bone to one, all to one that follows the bones as a rigid skin, or all to
 * one object at rest without bones. What is switched by clips or not worn stays a mesh of its own.
 */
export function joined(whole: ShipModel, { mesh: { as } }: ShipProfile): ShipModel {
  if (as === 'parts') return whole;
  const model = { ...whole, apart: countsOf(whole).draws };
  const switched = new Set(
    model.clips.flatMap((c) =>
      c.tracks().flatMap((t) => (t.path === 'scale' && model.nodes[t.node]!.mesh !== null ? [t.node] : [])),
    ),
  );
  const worlds = restWorlds(model.nodes);
  const shown = model.nodes.flatMap((n, i) => (n.mesh === null ? [] : [i]));
  const worn = shown.filter((i) => model.nodes[i]!.s.every((v) => v !== 0));
  switch (as) {
    case 'one':
      return oneObject(model, worn, worlds);
    case 'bones':
      return byBone(
        model,
        worn.filter((i) => !switched.has(i)),
      );
    case 'skin':
      return oneSkin(
        model,
        worn.filter((i) => !switched.has(i)),
        worlds,
      );
  }
}

/** One mesh at the top and nothing else. */
function oneObject(model: ShipModel, parts: readonly number[], worlds: readonly Mat4[]): ShipModel {
  const maker = new Joiner(model);
  const mesh = maker.join(
    model.name,
    parts.map((node) => ({ node, mesh: model.meshes[model.nodes[node]!.mesh!]!, to: worlds[node]!, joint: null })),
  );
  const node: ShipNode = {
    name: model.name,
    parent: null,
    t: [0, 0, 0],
    q: QUAT_IDENTITY,
    s: [1, 1, 1],
    mesh,
    skinned: false,
  };
  // Colliders and points stay nodes of their own, below it, where they stand at rest.
  const nodes = [node],
    places = new Map<number, number>();
  const lamps = model.nodes.flatMap((n, i) => (n.lamp ? [i] : []));
  for (const n of new Set([...model.colliders.map((c) => c.node), ...model.points, ...lamps])) {
    places.set(n, nodes.length);
    nodes.push({ ...model.nodes[n]!, ...decompose(worlds[n]!), parent: 0, mesh: null });
  }
  return {
    ...model,
    ...maker.made(),
    nodes,
    clips: [],
    colliders: model.colliders.map((c) => ({ ...c, node: places.get(c.node)! })),
    points: model.points.map((n) => places.get(n)!),
    notes: model.clips.length > 0 ? [...model.notes, note('clipsJoined', '', { n: model.clips.length })] : model.notes,
  };
}

/** For each bone a mesh of all that is mounted on it. */
function byBone(model: ShipModel, parts: readonly number[]): ShipModel {
  const groups = new Map<number | null, number[]>();
  for (const n of parts) {
    const bone = model.nodes[n]!.parent;
    groups.set(bone, [...(groups.get(bone) ?? []), n]);
  }
  const maker = new Joiner(model);
  const nodes = [...model.nodes];
  for (const [bone, mine] of groups) {
    if (bone === null || mine.some((n) => nodes.some((o) => o.parent === n))) continue;
    const mesh = maker.join(
      nodes[bone]!.name,
      mine.map((node) => ({
        node,
        mesh: model.meshes[nodes[node]!.mesh!]!,
        to: matrixOf(nodes[node]!),
        joint: null,
      })),
    );
    nodes[bone] = { ...nodes[bone]!, mesh };
    // Their nodes stay for what hangs on them, without a mesh.
    for (const n of mine) nodes[n] = { ...nodes[n]!, mesh: null };
  }
  return withoutEmpty({ ...model, ...maker.made(), nodes }, new Set(parts));
}

/** One mesh whose vertices follow the nodes that their parts hung on. */
function oneSkin(model: ShipModel, parts: readonly number[], worlds: readonly Mat4[]): ShipModel {
  const joints = [...new Set(parts.map((n) => model.nodes[n]!.parent ?? n))].sort((a, b) => a - b);
  const maker = new Joiner(model);
  const mesh = maker.join(
    model.name,
    parts.map((node) => ({
      node,
      mesh: model.meshes[model.nodes[node]!.mesh!]!,
      to: worlds[node]!,
      joint: joints.indexOf(model.nodes[node]!.parent ?? node),
    })),
  );
  const nodes = model.nodes.map((n, i) => (parts.includes(i) ? { ...n, mesh: null } : n));
  nodes.push({
    name: `${model.name} skin`,
    parent: null,
    t: [0, 0, 0],
    q: QUAT_IDENTITY,
    s: [1, 1, 1],
    mesh,
    skinned: true,
  });
  return withoutEmpty({ ...model, ...maker.made(), nodes, joints }, new Set(parts));
}

/** Without nodes of parts that show nothing any more and that nothing hangs on; their colliders go to what they hung on. */
function withoutEmpty(model: ShipModel, candidates: ReadonlySet<number>): ShipModel {
  const needed = new Set<number>([
    ...model.nodes.flatMap((n) => (n.parent === null ? [] : [n.parent])),
    ...model.points,
    ...model.joints,
    ...model.clips.flatMap((c) => c.tracks().map((t) => t.node)),
  ]);
  const gone = new Set(
    [...candidates].filter((i) => {
      const { mesh, parent, s } = model.nodes[i]!;
      return mesh === null && !needed.has(i) && parent !== null && s[0] === s[1] && s[1] === s[2];
    }),
  );
  const places = new Map<number, number>();
  model.nodes.forEach((_, i) => gone.has(i) || places.set(i, places.size));
  const to = (n: number): number => places.get(n)!;
  return {
    ...model,
    nodes: model.nodes.flatMap((n, i) =>
      gone.has(i) ? [] : [{ ...n, parent: n.parent === null ? null : to(n.parent) }],
    ),
    joints: model.joints.map(to),
    points: model.points.map(to),
    colliders: model.colliders.map((c) => {
      const of = model.nodes[c.node]!;
      return gone.has(c.node) ? { ...moved(c, of), node: to(of.parent!) } : { ...c, node: to(c.node) };
    }),
    clips: model.clips.map((c) => ({ ...c, tracks: () => c.tracks().map((t) => ({ ...t, node: to(t.node) })) })),
  };
}

/** A collider as what its node hangs on sees it; the node is scaled alike along all axes. */
function moved(collider: ShipCollider, { t, q, s }: ShipNode): ShipCollider {
  const to = matrixOf({ t, q, s }),
    { shape } = collider,
    error = collider.error * s[0];
  if (shape.kind === 'box') {
    const { middle, size, turn } = shape;
    const box = { ...shape, middle: transformPoint(to, middle), size: scale(size, s[0]), turn: mulQuat(q, turn) };
    return { ...collider, error, shape: box };
  }
  const positions = new Float32Array(shape.positions.length);
  for (let i = 0; i < positions.length; i += 3)
    positions.set(transformPoint(to, [shape.positions[i]!, shape.positions[i + 1]!, shape.positions[i + 2]!]), i);
  return { ...collider, error, shape: { ...shape, positions } };
}

/** Puts meshes together, a shape for each material. */
class Joiner {
  private readonly shapes: ShipShape[];
  private readonly covers: ShipCover[];
  private readonly meshes: ShipMesh[];

  constructor(model: ShipModel) {
    this.shapes = [...model.shapes];
    this.covers = [...model.covers];
    this.meshes = [...model.meshes];
  }

  /** A new mesh; gives its number. */
  join(name: string, shares: readonly Share[]): number {
    const seconds = secondGrid(shares);
    const groups = new Map<string, { piece: ShipPiece; of: { share: Share; shape: number; n: number }[] }>();
    shares.forEach((share, n) => {
      for (const piece of share.mesh.pieces) {
        const key = `${piece.material} ${piece.looks.join()}`;
        let group = groups.get(key);
        if (!group) groups.set(key, (group = { piece, of: [] }));
        group.of.push({ share, shape: piece.shape, n });
      }
    });
    const pieces = [...groups.values()].map(({ piece, of }): ShipPiece => {
      const shape =
        this.shapes.push(
          united(
            of.map(({ share, shape: s, n }) => ({ shape: this.shapes[s]!, share, second: seconds?.places[n] ?? null })),
          ),
        ) - 1;
      this.covers.push(together(of.map((o) => this.covers[o.shape]!)));
      return { ...piece, shape };
    });
    return this.meshes.push({ name, part: null, pieces, second: seconds?.size ?? null }) - 1;
  }

  made(): Pick<ShipModel, 'shapes' | 'meshes' | 'covers'> {
    return { shapes: this.shapes, meshes: this.meshes, covers: this.covers };
  }
}

const together = (covers: readonly ShipCover[]): ShipCover =>
  covers.reduce((a, b) => ({ faces: a.faces + b.faces, spots: a.spots + b.spots, stairs: a.stairs + b.stairs }));

/** A share's place in the second coordinates of what it is joined to: they are scaled, then moved. */
type SecondPlace = readonly [number, number, number, number];

/** Second coordinates of all shares side by side. */
function secondGrid(shares: readonly Share[]): { places: SecondPlace[]; size: [number, number] } | null {
  if (shares.some((s) => !s.mesh.second)) return null;
  const sizes = shares.flatMap((s) => [...s.mesh.second!]);
  let area = 0,
    widest = 1;
  for (let i = 0; i < sizes.length; i += 2) {
    area += sizes[i]! * sizes[i + 1]!;
    widest = Math.max(widest, sizes[i]!);
  }
  const width = Math.max(widest, Math.ceil(Math.sqrt(area) * 1.1));
  const { at, height } = packSkyline(Int32Array.from(sizes), width);
  return {
    places: shares.map((_, i): SecondPlace => [
      sizes[i * 2]! / width,
      sizes[i * 2 + 1]! / height,
      at[i * 2]! / width,
      at[i * 2 + 1]! / height,
    ]),
    size: [width, height],
  };
}

function united(list: readonly { shape: ShipShape; share: Share; second: SecondPlace | null }[]): ShipShape {
  const count = list.reduce((n, { shape }) => n + shape.positions.length / 3, 0);
  const positions = new Float32Array(count * 3),
    normals = list.every(({ shape }) => shape.normals) ? new Float32Array(count * 3) : null,
    uv = new Float32Array(count * 2),
    uv2 = list.every(({ second, shape }) => second && shape.uv2) ? new Float32Array(count * 2) : null,
    indices = new Uint32Array(list.reduce((n, { shape }) => n + shape.indices.length, 0)),
    joints = list.every(({ share }) => share.joint !== null) ? new Uint16Array(count) : null;
  let from = 0,
    index = 0;
  for (const { shape, share, second } of list) {
    const n = shape.positions.length / 3;
    for (let i = 0; i < n; i++) {
      const k = i * 3,
        o = (from + i) * 3;
      positions.set(
        transformPoint(share.to, [shape.positions[k]!, shape.positions[k + 1]!, shape.positions[k + 2]!]),
        o,
      );
      if (normals)
        normals.set(
          normalize(transformDirection(share.to, [shape.normals![k]!, shape.normals![k + 1]!, shape.normals![k + 2]!])),
          o,
        );
      if (uv2 && second) {
        uv2[(from + i) * 2] = shape.uv2![i * 2]! * second[0] + second[2];
        uv2[(from + i) * 2 + 1] = shape.uv2![i * 2 + 1]! * second[1] + second[3];
      }
      if (joints) joints[from + i] = share.joint!;
    }
    uv.set(shape.uv, from * 2);
    for (const i of shape.indices) indices[index++] = i + from;
    from += n;
  }
  return { positions, normals, uv, uv2, indices, step: null, joints };
}

/** For each joint of a skin what takes a point of the mesh to the joint's own place at rest. */
export const inverseBinds = (model: ShipModel): Mat4[] => {
  const worlds = restWorlds(model.nodes);
  return model.joints.map((n) => invertMat(worlds[n] ?? MAT4_IDENTITY));
};
