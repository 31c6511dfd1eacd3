import { type Axis, type Vec3, add, cross, dot, mapVec, normalize, scale, sub, withAxis } from '@sphalerite/core/math';
import { alongAxis, onPlane } from './geometry';
import type { Ray } from './tool';

export type GizmoMode = 'move' | 'turn';

/** Where the gizmo stands in the world, and what can be done with it. */
export interface GizmoFrame {
  readonly at: Vec3;
  /** Three directions of length 1. */
  readonly axes: readonly [Vec3, Vec3, Vec3];
  readonly modes: readonly GizmoMode[];
}

/** What of it is taken hold of: an arrow, the square between two arrows, by the axis that it does not move along, or a ring. */
export interface Grip {
  readonly kind: 'axis' | 'plane' | 'ring';
  readonly axis: Axis;
}
export const sameGrip = (a: Grip | null, b: Grip | null): boolean => a?.kind === b?.kind && a?.axis === b?.axis;

/** What a drag has come to. */
export type Amount =
  /** Lengths along the frame's axes. */
  | { readonly kind: 'move'; readonly along: Vec3 }
  /** Counter-clockwise about one of them; more than a round counts on. */
  | { readonly kind: 'turn'; readonly axis: Axis; readonly degrees: number };

/** What a drag keeps to. */
export interface GizmoSteps {
  /** World units along each axis; 0 for any length, to a hundredth. */
  readonly move: Vec3;
  /** Degrees. */
  readonly turn: number;
  readonly fineTurn: number;
}

const toStep = (v: number, step: number): number =>
  step > 0 ? Math.round(v / step) * step : Math.round(v * 100) / 100;

/** A hand that holds the gizmo: rays and typed figures in, an amount out. */
export class GizmoDrag {
  private along: Vec3 = [0, 0, 0];
  private degrees = 0;
  private turns = 0;
  private readonly from: Vec3 | null;
  private readonly angle: number;
  private last: number;
  /** Figures that were typed while the hand is down; they go before what the pointer says. */
  private typed = '';

  constructor(
    private readonly frame: GizmoFrame,
    readonly grip: Grip,
    ray: Ray,
    private readonly steps: GizmoSteps,
  ) {
    this.from = this.place(ray);
    this.last = this.angle = (grip.kind === 'ring' && angleOnRing(ray, frame.at, frame.axes[grip.axis])) || 0;
  }

  /** Whether nothing has come of it. */
  get idle(): boolean {
    return this.degrees === 0 && this.along.every((v) => v === 0);
  }
  get amount(): Amount {
    return this.grip.kind === 'ring'
      ? { kind: 'turn', axis: this.grip.axis, degrees: this.degrees }
      : { kind: 'move', along: this.along };
  }

  /** @returns whether the ray says anything: along an axis or a plane that is seen end on it does not */
  follow(ray: Ray, fine: boolean): boolean {
    if (this.typed) return true;
    return this.grip.kind === 'ring' ? this.followRing(ray, fine) : this.followMove(ray);
  }

  /** Takes a key; gives whether it was a figure. In a plane both ways are that long. */
  type(key: string): boolean {
    if (key === 'Backspace') this.typed = this.typed.slice(0, -1);
    else if (/^[\d.]$/.test(key)) this.typed += key;
    else if (key === '-') this.typed = this.typed.startsWith('-') ? this.typed.slice(1) : `-${this.typed}`;
    else return false;
    const n = Number(this.typed);
    if (!Number.isFinite(n)) return true;
    const { kind, axis } = this.grip;
    if (kind === 'ring') this.degrees = n;
    else
      this.along = this.steps.move.map((step, i) =>
        this.moves(i, kind, axis) ? n * (step || 1) : 0,
      ) as unknown as Vec3;
    return true;
  }

  private moves(i: number, kind: Grip['kind'], axis: Axis): boolean {
    return kind === 'axis' ? i === axis : i !== axis;
  }

  /** Where the ray meets what is held, from the frame's middle. */
  private place(ray: Ray): Vec3 | null {
    const { at, axes } = this.frame;
    const { kind, axis } = this.grip;
    if (kind === 'axis') {
      const way = alongAxis(ray, at, axes[axis]);
      return way === null ? null : scale(axes[axis], way);
    }
    const p = kind === 'plane' ? onPlane(ray, at, axes[axis]) : null;
    return p && sub(p, at);
  }

  private followMove(ray: Ray): boolean {
    const to = this.place(ray);
    if (!to || !this.from) return false;
    const way = sub(to, this.from);
    const { axes } = this.frame;
    this.along = mapVec(this.steps.move, (step, i) =>
      this.moves(i, this.grip.kind, this.grip.axis) ? toStep(dot(way, axes[i]!), step) : 0,
    );
    return true;
  }

  private followRing(ray: Ray, fine: boolean): boolean {
    const a = angleOnRing(ray, this.frame.at, this.frame.axes[this.grip.axis]);
    if (a === null) return false;
    // More than one round is counted on, not lost.
    if (a - this.last > Math.PI) this.turns--;
    else if (a - this.last < -Math.PI) this.turns++;
    this.last = a;
    const whole = ((a - this.angle) * 180) / Math.PI + this.turns * 360;
    this.degrees = toStep(whole, fine ? this.steps.fineTurn : this.steps.turn);
    return true;
  }
}

/** What an amount comes to as a shift in the world. */
export const shiftOf = ({ axes }: GizmoFrame, along: Vec3): Vec3 =>
  add(add(scale(axes[0], along[0]), scale(axes[1], along[1])), scale(axes[2], along[2]));

/** An amount as the readout says it; `unit` is a step where figures count steps. */
export function amountText(amount: Amount, unit: Vec3 = [1, 1, 1]): string {
  if (amount.kind === 'turn') return `${AXIS_NAMES[amount.axis]} ${amount.degrees}°`;
  const moved = amount.along.flatMap((v, i) => {
    const n = Math.round((v / unit[i]!) * 100) / 100;
    return v === 0 ? [] : [`${AXIS_NAMES[i]!} ${n > 0 ? '+' : ''}${n}`];
  });
  return moved.join(', ') || '0';
}
const AXIS_NAMES = ['X', 'Y', 'Z'] as const;

/** Two directions of length 1 across an axis. */
export function across(axis: Vec3): [Vec3, Vec3] {
  const u = normalize(cross(axis, Math.abs(axis[1]) > 0.9 ? [1, 0, 0] : [0, 1, 0]));
  return [u, cross(axis, u)];
}

/** Angle in radians at which a ray meets a ring's plane, counter-clockwise about the axis; null when it is seen edge on. */
export function angleOnRing(ray: Ray, at: Vec3, axis: Vec3): number | null {
  const k = dot(ray.dir, axis);
  if (Math.abs(k) < 0.02) return null;
  const p = sub(add(ray.origin, scale(ray.dir, dot(sub(at, ray.origin), axis) / k)), at);
  const [u, v] = across(axis);
  return Math.atan2(dot(p, v), dot(p, u));
}

/** The world's own axes. */
export const WORLD_AXES: GizmoFrame['axes'] = [0, 1, 2].map((a) =>
  withAxis([0, 0, 0], a as Axis, 1),
) as unknown as GizmoFrame['axes'];
