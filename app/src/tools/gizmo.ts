import {
  AXES,
  type Axis,
  type Vec3,
  add,
  cross,
  dot,
  mapVec,
  normalize,
  scale,
  sub,
  withAxis,
} from '@sphalerite/core/math';
import { alongAxis, onPlane } from './geometry';
import type { Ray } from './tool';

export type GizmoMode = 'move' | 'turn' | 'scale';

/** Where the gizmo stands in the world, and what can be done with it. */
export interface GizmoFrame {
  readonly at: Vec3;
  /** Three directions of length 1. */
  readonly axes: readonly [Vec3, Vec3, Vec3];
  readonly modes: readonly GizmoMode[];
  /** Whether it scales all axes alike, whichever is pulled. */
  readonly even?: boolean;
}

/** What of it is taken hold of: an arrow, the square between two arrows, by the axis that it does not move along, a ring, or a cube that scales. */
export interface Grip {
  readonly kind: 'axis' | 'plane' | 'ring' | 'scale';
  readonly axis: Axis;
}
export const sameGrip = (a: Grip | null, b: Grip | null): boolean => a?.kind === b?.kind && a?.axis === b?.axis;

/** What a drag has come to. */
export type Amount =
  /** Lengths along the frame's axes. */
  | { readonly kind: 'move'; readonly along: Vec3 }
  /** Counter-clockwise about one of them; more than a round counts on. */
  | { readonly kind: 'turn'; readonly axis: Axis; readonly degrees: number }
  /** Times as large along each. */
  | { readonly kind: 'scale'; readonly by: Vec3 };

/** Which axes a drag goes along; of a ring one, which it turns about. */
export type LiveAxes = readonly [boolean, boolean, boolean];

/** What a drag keeps to. */
export interface GizmoSteps {
  /** World units along each axis; 0 for any length, to a hundredth. */
  readonly move: Vec3;
  /** World units that a typed figure counts. */
  readonly unit: Vec3;
  /** Degrees. */
  readonly turn: number;
  readonly fineTurn: number;
  /** A share of the size that it has. */
  readonly scale: number;
  readonly fineScale: number;
}

/** As small as a thing can be made by one pull. */
const LEAST_SCALE = 0.01;

const toStep = (v: number, step: number): number =>
  step > 0 ? Math.round(v / step) * step : Math.round(v * 100) / 100;

/** The axes that a grip goes along to begin with. */
function axesOf(grip: Grip, even: boolean): LiveAxes {
  if (grip.kind === 'scale' && even) return [true, true, true];
  return mapAxes((a) => (grip.kind === 'plane' ? a !== grip.axis : a === grip.axis));
}

/** A hand that holds the gizmo: rays, typed figures and switched axes in, an amount out. */
export class GizmoDrag {
  /** Lengths, or shares of the size, along each axis; those that are not live stay 0. */
  private along: Vec3 = [0, 0, 0];
  private degrees = 0;
  private turns = 0;
  private from!: Vec3 | null;
  private angle!: number;
  private last!: number;
  private axes: LiveAxes;
  /** Figures that were typed while the hand is down; they go before what the pointer says. */
  private typed = '';

  constructor(
    private readonly frame: GizmoFrame,
    readonly grip: Grip,
    private readonly start: Ray,
    private readonly steps: GizmoSteps,
  ) {
    this.axes = axesOf(grip, frame.even ?? false);
    this.take();
  }

  /** Whether nothing has come of it. */
  get idle(): boolean {
    return this.degrees === 0 && this.along.every((v) => v === 0);
  }
  get live(): LiveAxes {
    return this.axes;
  }
  get amount(): Amount {
    if (this.grip.kind === 'ring') return { kind: 'turn', axis: this.ringAxis, degrees: this.degrees };
    return this.grip.kind === 'scale'
      ? { kind: 'scale', by: mapVec(this.along, (v) => Math.max(LEAST_SCALE, Math.round((1 + v) * 1e4) / 1e4)) }
      : { kind: 'move', along: this.along };
  }

  /** @returns whether the ray says anything: along an axis or a plane that is seen end on it does not */
  follow(ray: Ray, fine: boolean): boolean {
    if (this.typed) return true;
    if (this.grip.kind === 'ring') return this.followRing(ray, fine);
    return this.grip.kind === 'scale' ? this.followScale(ray, fine) : this.followMove(ray);
  }

  /** Switches an axis on or off, the last one staying on; a ring turns about the one that is asked for, what scales all alike goes on so. */
  toggle(axis: Axis): void {
    if (this.grip.kind === 'scale' && this.frame.even) return;
    const next: LiveAxes = mapAxes((a) =>
      this.grip.kind === 'ring' ? a === axis : a === axis ? !this.axes[a] : this.axes[a],
    );
    if (!next.includes(true)) return;
    this.axes = next;
    this.along = mapVec(this.along, (v, i) => (next[i] ? v : 0));
    this.take();
    if (this.typed) this.say();
  }

  /** Takes a key; gives whether it was a figure. In a plane both ways are that long; a size is given in per cent. */
  type(key: string): boolean {
    if (key === 'Backspace') this.typed = this.typed.slice(0, -1);
    else if (/^[\d.]$/.test(key)) this.typed += key;
    else if (key === '-') this.typed = this.typed.startsWith('-') ? this.typed.slice(1) : `-${this.typed}`;
    else return false;
    this.say();
    return true;
  }

  /** What was typed, as an amount. */
  private say(): void {
    const n = Number(this.typed);
    if (!Number.isFinite(n)) return;
    if (this.grip.kind === 'ring') this.degrees = n;
    else if (this.grip.kind === 'scale') {
      const by = this.typed ? n / 100 - 1 : 0;
      this.along = mapVec(this.along, (_, i) => (this.axes[i] ? by : 0));
    } else this.along = mapVec(this.steps.unit, (one, i) => (this.axes[i] ? n * one : 0));
  }

  private get ringAxis(): Axis {
    return AXES.find((a) => this.axes[a])!;
  }
  /** Takes hold where the hand went down, along the axes that are live. */
  private take(): void {
    this.from = this.place(this.start);
    this.turns = 0;
    this.last = this.angle =
      (this.grip.kind === 'ring' && angleOnRing(this.start, this.frame.at, this.frame.axes[this.ringAxis])) || 0;
  }

  /** Where the ray meets what is held, from the frame's middle: on a line, in a plane, or, free, in the plane that faced the eye. */
  private place(ray: Ray): Vec3 | null {
    const { at, axes } = this.frame;
    const on = AXES.filter((a) => this.axes[a]);
    if (on.length === 1 || this.frame.even) {
      const axis = axes[this.frame.even ? this.grip.axis : on[0]!];
      const way = alongAxis(ray, at, axis);
      return way === null ? null : scale(axis, way);
    }
    const p = onPlane(ray, at, on.length === 3 ? this.start.dir : axes[AXES.find((a) => !this.axes[a])!]);
    return p && sub(p, at);
  }

  private followMove(ray: Ray): boolean {
    const to = this.place(ray);
    if (!to || !this.from) return false;
    const way = sub(to, this.from);
    this.along = mapVec(this.steps.move, (step, i) => (this.axes[i] ? toStep(dot(way, this.frame.axes[i]!), step) : 0));
    return true;
  }

  /** So much nearer to or farther from the middle than where it was taken hold of. */
  private followScale(ray: Ray, fine: boolean): boolean {
    const to = this.place(ray);
    const { from } = this;
    if (!to || !from || dot(from, from) === 0) return false;
    const by = dot(to, from) / dot(from, from) - 1;
    const held = toStep(by, fine ? this.steps.fineScale : this.steps.scale);
    this.along = mapVec(this.along, (_, i) => (this.axes[i] ? Math.max(LEAST_SCALE - 1, held) : 0));
    return true;
  }

  private followRing(ray: Ray, fine: boolean): boolean {
    const a = angleOnRing(ray, this.frame.at, this.frame.axes[this.ringAxis]);
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
  if (amount.kind === 'scale') {
    const [x, y, z] = amount.by.map((v) => `${Math.round(v * 1000) / 10} %`) as [string, string, string];
    return x === y && y === z ? x : `X ${x}, Y ${y}, Z ${z}`;
  }
  const moved = amount.along.flatMap((v, i) => {
    const n = Math.round((v / unit[i]!) * 100) / 100;
    return v === 0 ? [] : [`${AXIS_NAMES[i]!} ${n > 0 ? '+' : ''}${n}`];
  });
  return moved.join(', ') || '0';
}
/** A place as it is said at a handle: to a hundredth. */
export const placeText = (at: Vec3): string =>
  at.map((v, i) => `${AXIS_NAMES[i]!} ${Math.round(v * 100) / 100}`).join('  ');

export const AXIS_NAMES = ['X', 'Y', 'Z'] as const;
const mapAxes = (f: (axis: Axis) => boolean): LiveAxes => AXES.map(f) as unknown as LiveAxes;

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
