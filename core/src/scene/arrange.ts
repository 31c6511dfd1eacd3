import { AXES, type Axis, type Extent, type Vec3, add, vec3Of, withAxis } from '../math';

/** Where along an axis things are brought in line: their low ends, their middles or their high ends. */
export type Edge = 'low' | 'middle' | 'high';
export const EDGES: readonly Edge[] = ['low', 'middle', 'high'];

const STILL: Vec3 = [0, 0, 0];
export const edgeOfExtent = ({ lo, hi }: Extent, axis: Axis, edge: Edge): number =>
  edge === 'low' ? lo[axis] : edge === 'high' ? hi[axis] : (lo[axis] + hi[axis]) / 2;

/** What brings things in line with one of them along an axis. @param with_ – the one that stays */
export function alignShifts(extents: readonly Extent[], with_: number, axis: Axis, edge: Edge): Vec3[] {
  const to = edgeOfExtent(extents[with_]!, axis, edge);
  return extents.map((e) => withAxis(STILL, axis, to - edgeOfExtent(e, axis, edge)));
}

/** What makes the gaps between things along an axis alike; the outermost two stay. */
export function distributeShifts(extents: readonly Extent[], axis: Axis): Vec3[] {
  const order = extents.map((_, i) => i).sort((a, b) => extents[a]!.lo[axis] - extents[b]!.lo[axis]);
  const out: Vec3[] = extents.map(() => STILL);
  if (order.length < 3) return out;
  const size = (i: number): number => extents[i]!.hi[axis] - extents[i]!.lo[axis];
  const first = order[0]!,
    last = order.at(-1)!;
  const room = extents[last]!.lo[axis] - extents[first]!.hi[axis],
    inner = order.slice(1, -1),
    gap = (room - inner.reduce((n, i) => n + size(i), 0)) / (order.length - 1);
  let at = extents[first]!.hi[axis];
  for (const i of inner) {
    at += gap;
    out[i] = withAxis(STILL, axis, at - extents[i]!.lo[axis]);
    at += size(i);
  }
  return out;
}

/** What puts each on top of the one before, middle over middle; the first stays. */
export function stackShifts(extents: readonly Extent[]): Vec3[] {
  const base = extents[0];
  if (!base) return [];
  let top = base.hi[1];
  return extents.map((e, i) => {
    if (i === 0) return STILL;
    const shift: Vec3 = [
      edgeOfExtent(base, 0, 'middle') - edgeOfExtent(e, 0, 'middle'),
      top - e.lo[1],
      edgeOfExtent(base, 2, 'middle') - edgeOfExtent(e, 2, 'middle'),
    ];
    top += e.hi[1] - e.lo[1];
    return shift;
  });
}

/** A plane that something was snapped to. */
export interface Snapped {
  readonly axis: Axis;
  readonly at: number;
  /** Whose edge or middle it is. */
  readonly to: Extent;
}

/**
 * A move that is brought to the edges and middles of what stands around: along each axis on its own, to the nearest that is within reach.
 *
 * @param own – what is moved, where it stood
 * @param shift – by how much it is moved; axes along which it does not move stay as they are
 * @param within – how near it has to come
 */
export function snapShift(
  own: Extent,
  others: readonly Extent[],
  shift: Vec3,
  within: number,
): { readonly shift: Vec3; readonly snapped: readonly Snapped[] } {
  const snapped: Snapped[] = [];
  const by = AXES.map((axis) => {
    if (shift[axis] === 0) return 0;
    let best = within,
      snap = shift[axis]!;
    let found: Snapped | null = null;
    for (const to of others)
      for (const theirs of EDGES) {
        const at = edgeOfExtent(to, axis, theirs);
        for (const mine of EDGES) {
          // A middle meets a middle; edges meet edges.
          if ((mine === 'middle') !== (theirs === 'middle')) continue;
          const off = at - edgeOfExtent(own, axis, mine) - shift[axis]!;
          if (Math.abs(off) < best) {
            best = Math.abs(off);
            snap = shift[axis]! + off;
            found = { axis, at, to };
          }
        }
      }
    if (found) snapped.push(found);
    return snap;
  });
  return { shift: vec3Of(by), snapped };
}

/** An extent moved. */
export const movedExtent = ({ lo, hi }: Extent, by: Vec3): Extent => ({ lo: add(lo, by), hi: add(hi, by) });
