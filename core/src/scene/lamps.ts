import { type Axis, type Mat4, MAT4_IDENTITY, invertMat, matrixOf, mulMat } from '../math';
import { type Id, type Lamp, type Project, type Scene, must, placementsOf, worldOfPlacement } from '../model';
import { Gatherer } from './gather';
import { reflection } from './mirrored';

/** A lamp where it shines. */
export interface PlacedLamp {
  readonly lamp: Lamp;
  /** From its own space, in which it shines along −Z, to the world. */
  readonly matrix: Mat4;
  /** Which copy of a repeat it shines from; 0 for itself. */
  readonly copy: number;
}

/**
 * The lamps of a scene that shine, where what they hang on stands: with each copy of what repeats it too. Those that are hidden, or hang on
 * or lie on something hidden, do not.
 */
export function lampsOf(project: Project, scene: Id, gatherer = new Gatherer()): PlacedLamp[] {
  const of = must(project.scenes, scene, 'scene');
  if (of.lamps.length === 0) return [];
  gatherer.gather(project, { of: 'scene', scene });
  const above = new Map(placementsOf(of).map((p) => [p.id, p])),
    dark = new Set(of.layers.filter((l) => l.hidden).map((l) => l.id));
  const chainOf = (id: Id | null): Id[] => {
    const out: Id[] = [];
    for (let at = id; at !== null; at = above.get(at)?.parent ?? null) out.push(at);
    return out;
  };
  return of.lamps.flatMap((lamp): PlacedLamp[] => {
    const chain = chainOf(lamp.parent);
    if (lamp.hidden || dark.has(lamp.layer) || chain.some((id) => above.get(id)?.hidden)) return [];
    const matrix = lampMatrix(of, lamp);
    const copies = of.repeats
      .filter((r) => chain.includes(r.placement))
      .flatMap((r): PlacedLamp[] => {
        const parent = above.get(r.placement)!.parent,
          space = parent === null ? MAT4_IDENTITY : matrixOf(worldOfPlacement(of, parent));
        if (r.kind === 'mirror') return [{ lamp, matrix: imageOf(matrix, space, r.axis, r.at), copy: 1 }];
        const back = invertMat(space);
        return gatherer
          .copiesOf(r.id)
          .filter((c) => c.source === null)
          .map((c) => ({ lamp, matrix: mulMat(mulMat(c.placed, back), matrix), copy: c.copy }));
      });
    return [{ lamp, matrix, copy: 0 }, ...copies];
  });
}

/** Where a lamp stands in the world. */
export function lampMatrix(scene: Scene, { parent, t, q }: Pick<Lamp, 'parent' | 't' | 'q'>): Mat4 {
  const own = matrixOf({ t, q, s: [1, 1, 1] });
  return parent === null ? own : mulMat(matrixOf(worldOfPlacement(scene, parent)), own);
}

/** A lamp is alike on both sides, so that its image may turn instead of mirror. */
const imageOf = (m: Mat4, space: Mat4, axis: Axis, at: number): Mat4 => {
  const side: Mat4 = [-1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
  return mulMat(mulMat(reflection(space, axis, at), m), side);
};
