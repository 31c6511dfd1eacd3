import type { MeshClip, MeshScene } from '../../codec';
import { TICKS, type Id, type SwapKey, type SwapLane } from '../../model';

/** Nodes of which one is shown at a time, or none. */
export interface Exchanged {
  /** As the file says; else null. */
  readonly name: string | null;
  readonly nodes: readonly number[];
  /** What is shown at rest. */
  readonly worn: number | null;
}

const isNothing = (s: ArrayLike<number>): boolean => s[0] === 0 && s[1] === 0 && s[2] === 0;

/** Where a clip says whether a node is there: scales that only step between nothing and one size. */
function shownIn(clip: MeshClip, node: number) {
  const track = clip.tracks.find((t) => t.node === node && t.path === 'scale');
  if (!track || track.interpolation !== 'STEP') return null;
  const keys = Array.from(track.times, (time, i) => ({
    time,
    shown: !isNothing(track.values.subarray(i * 3, i * 3 + 3)),
  }));
  return keys;
}

/**
 * Nodes that are shown or not by a scale of nothing, the one way that glTF 2.0 has: at rest, or stepped by clips. Those that the file says
 * to be of a set, or that hang on one node and of which never two are shown, exchange each other; any other is one by itself.
 */
export function exchangedNodes(scene: MeshScene): Exchanged[] {
  const switched = scene.nodes.flatMap((n, i) => {
    if (n.shapes.length === 0 || n.role !== 'node') return [];
    const tracks = scene.clips.flatMap((c) => c.tracks.filter((t) => t.node === i));
    // What moves besides is a bone.
    const steps = scene.clips.every((c) => c.tracks.every((t) => t.node !== i || shownIn(c, i) !== null));
    const vanishes = scene.clips.some((c) => shownIn(c, i)?.some((k) => !k.shown));
    return steps && (isNothing(n.rest.s) || (tracks.length > 0 && vanishes)) ? [i] : [];
  });
  const groups = new Map<string, number[]>();
  for (const i of switched) {
    const { set, parent } = scene.nodes[i]!;
    const key = set === undefined ? `on ${parent}` : `set ${set}`;
    groups.set(key, [...(groups.get(key) ?? []), i]);
  }
  const told = new Set(scene.nodes.flatMap((n) => n.set ?? []));
  for (const [i, n] of scene.nodes.entries())
    if (n.set !== undefined && told.has(n.set) && n.shapes.length > 0 && !switched.includes(i))
      groups.set(`set ${n.set}`, [...(groups.get(`set ${n.set}`) ?? []), i]);
  return [...groups.values()].flatMap((nodes): Exchanged[] => {
    const name = scene.nodes[nodes[0]!]!.set ?? null;
    const worn = nodes.filter((i) => !isNothing(scene.nodes[i]!.rest.s));
    return worn.length < 2 && scene.clips.every((c) => neverTwo(c, nodes))
      ? [{ name, nodes, worn: worn[0] ?? null }]
      : nodes.map((i) => ({ name, nodes: [i], worn: worn.includes(i) ? i : null }));
  });
}

const times = (clip: MeshClip, nodes: readonly number[]): number[] =>
  [...new Set(nodes.flatMap((i) => shownIn(clip, i)?.map((k) => k.time) ?? []))].sort((a, b) => a - b);

/** The nodes that a clip shows at a moment. */
const shownAt = (clip: MeshClip, nodes: readonly number[], time: number): number[] =>
  nodes.filter((i) => {
    const keys = shownIn(clip, i);
    return keys && (keys.findLast((k) => k.time <= time) ?? keys[0])?.shown;
  });

const neverTwo = (clip: MeshClip, nodes: readonly number[]): boolean =>
  times(clip, nodes).every((t) => shownAt(clip, nodes, t).length < 2);

/** What a clip puts on in a set; null when it says nothing of it. @param mounts – of nodes */
export function swapsOf(
  clip: MeshClip,
  { nodes }: Exchanged,
  alternateSet: Id,
  mounts: ReadonlyMap<number, Id>,
): SwapLane | null {
  const keys: SwapKey[] = [];
  for (const t of times(clip, nodes)) {
    const [node] = shownAt(clip, nodes, t),
      time = Math.round(t * TICKS);
    if (keys.at(-1)?.time === time) keys.pop();
    keys.push({ time, mount: node === undefined ? null : (mounts.get(node) ?? null) });
  }
  return keys.length > 0 ? { alternateSet, keys } : null;
}
