import { type Vec3, add, normalize, scale, sub, transformPoint } from '../math';
import type { Id, Light, Project } from '../model';
import { hexToLinear } from '../palette';
import { type PlacedLamp, lampsOf } from '../scene';

/** A lamp of a scene as it is traced. */
export interface TraceLamp {
  readonly kind: 'point' | 'spot' | 'panel';
  readonly at: Vec3;
  /** Where it looks; unit length. */
  readonly ahead: Vec3;
  /** Sides of a panel, unit length. */
  readonly right: Vec3;
  readonly up: Vec3;
  /** What a white surface shows that faces it at a distance of one project unit, on its axis. */
  readonly colour: readonly [number, number, number];
  /** Across, in project units; larger throws softer shadows. */
  readonly size: number;
  /** Cosines between which a cone falls off, as glTF has it. */
  readonly cosInner: number;
  readonly cosOuter: number;
}

/**
 * A lamp where it shines. Its strength is in candela, so that a wall at d metres that faces it receives strength / d² lux, and
 * shows that over π, in the measure of the sun.
 */
export function traceLamp({ lamp, matrix }: PlacedLamp, metresPerUnit: number): TraceLamp {
  const at = transformPoint(matrix, [0, 0, 0]);
  const towards = (p: Vec3): Vec3 => normalize(sub(transformPoint(matrix, p), at));
  const [r, g, b] = hexToLinear(lamp.colour);
  const k = lamp.strength / (Math.PI * metresPerUnit * metresPerUnit);
  const outer = (Math.min(lamp.angle, 179) * Math.PI) / 360;
  return {
    ...{ kind: lamp.kind, at, ahead: towards([0, 0, -1]), right: towards([1, 0, 0]), up: towards([0, 1, 0]) },
    ...{ colour: [r * k, g * k, b * k], size: lamp.size },
    ...{ cosInner: Math.cos(outer * 0.8), cosOuter: Math.cos(outer) },
  };
}

/** The lamps of a scene as a shot has them: all of them dimmed, and each moved, dimmed and coloured as the shot says. */
export function shotLamps(project: Project, scene: Id, { lamps }: Pick<Light, 'lamps'>): TraceLamp[] {
  const changes = new Map(lamps.changes.map((c) => [c.lamp, c]));
  return lampsOf(project, scene).map((placed) => {
    const change = changes.get(placed.lamp.id);
    const lamp = change?.colour ? { ...placed.lamp, colour: change.colour } : placed.lamp;
    const traced = traceLamp({ ...placed, lamp }, project.metresPerUnit);
    return {
      ...traced,
      at: change ? add(traced.at, change.by) : traced.at,
      colour: scale(traced.colour, lamps.strength * (change?.strength ?? 1)),
    };
  });
}
