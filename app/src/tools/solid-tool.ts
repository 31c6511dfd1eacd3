import {
  type Axis,
  type Box,
  type Vec3,
  boxEnd,
  boxFromCells,
  boxVolume,
  dot,
  floor,
  length,
  mapVec,
} from '@sphalerite/core/math';
import { type Hollow, type Shape, axisOf, shapeCells } from '@sphalerite/core/sculpt';
import { STANDS } from './card';
import { alongAxis, onPlane, targetCell } from './geometry';
import { type Change, IDLE, type Ray, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from './tool';
import { effectiveVerb, valueAt } from './verbs';

/** Cosine of the angle between eye and height below which the pointer cannot tell it: some ten degrees. */
const STRAIGHT = 0.985;

/** Cubes of a shape; those of very large round or hollow ones are not counted while the hand moves. */
const cellCount = (shape: Shape, box: Box): number | null =>
  shape.kind === 'box' && !shape.hollow ? boxVolume(box) : boxVolume(box) > 2_000_000 ? null : shapeCells(shape).count;

/**
 * A box, ellipsoid or solid of revolution as footprint, then height: press and drag over a surface for the footprint, let
 * go, move for the height, click to set. Erase, Paint and Select go into the body, Add out of it. While it waits it
 * can be nudged, or given by numbers; then the pointer no longer changes its height.
 */
export class SolidTool implements Tool {
  private phase: 'idle' | 'footprint' | 'height' | 'held' = 'idle';
  private anchor: Vec3 = [0, 0, 0];
  private corner: Vec3 = [0, 0, 0];
  private normal: Vec3 = [0, 1, 0];
  /** A point of the surface that the press began on; the footprint is drawn along it. */
  private surface: Vec3 = [0, 0, 0];
  private layers = 1;
  /** Where along the normal the pointer was when the height began. */
  private from: number | null = null;
  /** The box of a shape that is held by numbers. */
  private held: Box | null = null;
  /** Whether one looked straight along the height when it was asked for. */
  private straight = false;
  private value = 1;
  private equal = false;
  private centre = false;
  private shown: { key: string; shape: Shape } | null = null;
  /** Slices set so far, when they are set one by one. */
  private slice = 0;

  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    const verb = effectiveVerb(ctx);
    switch (event.type) {
      case 'cancel':
        return this.stop();
      case 'commit':
        return this.waits ? this.finish(ctx) : IDLE;
      case 'refresh':
        return this.phase === 'idle' ? IDLE : this.show(ctx);
      case 'height':
        return this.waits ? this.higher(event.by, ctx) : IDLE;
      case 'nudge': {
        if (!this.waits) return IDLE;
        // Where the pointer cannot tell the height, the keys along it do.
        const along = event.by[axisOf(this.normal)] * this.normal[axisOf(this.normal)]!;
        if (this.phase === 'height' && this.straight && along !== 0) return this.higher(along, ctx);
        const b = this.box(ctx);
        return this.hold(
          { min: [b.min[0] + event.by[0], b.min[1] + event.by[1], b.min[2] + event.by[2]], size: b.size },
          ctx,
        );
      }
      case 'box':
        if (this.phase === 'idle') {
          this.normal = [0, 1, 0];
          this.value = ctx.value;
        }
        return this.hold(event.box, ctx);
    }
    this.equal = ctx.card.equal || (event.shift === true && verb !== 'select');
    this.centre = ctx.card.centre || event.ctrl === true;
    if (this.phase === 'idle') {
      const cell = event.pick ? targetCell(verb, event.pick) : null;
      if (!cell) return IDLE;
      if (event.type !== 'down') return { ...IDLE, shapes: [{ kind: 'box', box: { min: cell, size: [1, 1, 1] } }] };
      this.phase = 'footprint';
      this.anchor = this.corner = cell;
      this.normal = event.pick!.normal;
      this.value = valueAt(ctx, event.pick);
      this.surface = event.pick!.point ?? mapVec(event.pick!.cell, (v, i) => v + 0.5 + this.normal[i]! / 2);
      this.layers = 1;
      this.slice = 0;
      return this.show(ctx);
    }
    if (this.phase === 'footprint') {
      this.corner = this.cornerUnder(event.ray) ?? this.corner;
      if (event.type === 'up') {
        // A selection in a square-on view takes all that lies behind it; equal sides have their height already.
        if (this.through(ctx) !== null || this.equal) return this.finish(ctx);
        this.phase = 'height';
        this.from = this.heightUnder(event.ray);
        this.straight = this.from === null;
      }
      return this.show(ctx);
    }
    if (this.phase === 'height') {
      const at = this.straight ? null : this.heightUnder(event.ray);
      if (at !== null && this.from !== null) {
        // Erase, Paint and Select go inwards, so there the way down counts up.
        const moved = Math.round(at - this.from) * (verb === 'add' ? 1 : -1);
        this.layers = moved >= 0 ? 1 + moved : moved - 1;
      }
    }
    return event.type === 'down' ? this.finish(ctx) : this.show(ctx);
  }

  /** So many layers more or, below none, fewer. */
  private higher(by: number, ctx: ToolContext): ToolOutput {
    if (this.held) {
      const axis = axisOf(this.normal);
      const size = mapVec(this.held.size, (s, i) => (i === axis ? Math.max(1, s + by) : s));
      return this.hold({ min: this.held.min, size }, ctx);
    }
    const next = this.layers + by;
    // One layer outwards is followed by two inwards: the footprint itself is always in it.
    this.layers = next < 1 && this.layers >= 1 ? next - 2 : next > -2 && this.layers <= -2 ? next + 2 : next;
    return this.show(ctx);
  }

  private get waits(): boolean {
    return this.phase === 'height' || this.phase === 'held';
  }

  private hold(box: Box, ctx: ToolContext): ToolOutput {
    this.held = box;
    this.phase = 'held';
    this.slice = 0;
    return this.show(ctx);
  }

  /** The cell of the footprint's plane that the pointer is over. */
  private cornerUnder(ray: Ray): Vec3 | null {
    const axis = axisOf(this.normal);
    const hit = onPlane(ray, this.surface, this.normal);
    if (!hit) return null;
    const c = [...floor(hit)] as [number, number, number];
    c[axis] = this.anchor[axis];
    // A pointer near the horizon would reach thousands of cells away.
    return mapVec(c, (v, i) => Math.max(this.anchor[i]! - 255, Math.min(this.anchor[i]! + 255, v)));
  }

  /** Null where one looks so nearly along the height that the pointer cannot tell it. */
  private heightUnder(ray: Ray): number | null {
    if (Math.abs(dot(ray.dir, this.normal)) > STRAIGHT * length(ray.dir)) return null;
    return alongAxis(ray, [this.corner[0] + 0.5, this.corner[1] + 0.5, this.corner[2] + 0.5], this.normal);
  }

  private through(ctx: ToolContext): Axis | null {
    return effectiveVerb(ctx) === 'select' && ctx.square === axisOf(this.normal) ? ctx.square : null;
  }

  private box(ctx: ToolContext): Box {
    if (this.held) return this.held;
    const axis = axisOf(this.normal);
    const flat = ([0, 1, 2] as Axis[]).filter((a) => a !== axis);
    const way = flat.map((a) => this.corner[a] - this.anchor[a]);
    const longest = Math.max(...way.map(Math.abs));
    const lo = [...this.anchor] as [number, number, number],
      hi = [...this.anchor] as [number, number, number];
    flat.forEach((a, i) => {
      const reach = this.equal ? (way[i]! < 0 ? -longest : longest) : way[i]!;
      hi[a] = this.anchor[a] + reach;
      if (this.centre) lo[a] = this.anchor[a] - reach;
    });
    const square = this.through(ctx);
    if (square !== null) {
      lo[square] = ctx.limit.min[square];
      hi[square] = boxEnd(ctx.limit)[square] - 1;
      return boxFromCells(lo, hi);
    }
    const side = longest * (this.centre ? 2 : 1);
    const layers = this.equal ? side + 1 : this.layers;
    const k = (Math.abs(layers) - 1) * Math.sign(layers) * (effectiveVerb(ctx) === 'add' ? 1 : -1);
    hi[axis] = lo[axis] + this.normal[axis] * k;
    return boxFromCells(lo, hi);
  }

  private shape(ctx: ToolContext): Shape {
    const { card } = ctx;
    const box = this.box(ctx);
    const key = JSON.stringify([box, card, this.slice]);
    // The same shape keeps its cells, which are made only once.
    if (this.shown?.key !== key) this.shown = { key, shape: this.make(ctx, box) };
    return this.shown.shape;
  }

  private make(ctx: ToolContext, box: Box): Shape {
    const { card } = ctx;
    const axis =
      card.reach === 'cylinder' && card.stand !== 'surface'
        ? ((STANDS.indexOf(card.stand) - 1) as Axis)
        : axisOf(this.normal);
    const out = effectiveVerb(ctx) === 'add' ? 1 : -1;
    const dir =
      axis === axisOf(this.normal) && this.normal[axis]! * out * Math.sign(this.held ? 1 : this.layers) < 0 ? -1 : 1;
    const ends = card.reach === 'cylinder' || card.reach === 'box';
    const open = (end: 'base' | 'top'): boolean => card.ends === 'both' || card.ends === end;
    const hollow: Hollow | null =
      card.wall === 0
        ? null
        : {
            wall: card.wall,
            faces: card.tight,
            open: ends ? { axis, low: open(dir > 0 ? 'base' : 'top'), high: open(dir > 0 ? 'top' : 'base') } : null,
          };
    if (card.reach === 'box') return { kind: 'box', box, hollow };
    if (card.reach === 'ellipsoid') return { kind: 'ellipsoid', box, hollow };
    const solid = { box, axis, dir, profile: card.profile, section: card.section, top: card.top / 100 } as const;
    return {
      kind: 'standing',
      solid,
      hollow,
      ...(card.slices && this.waits ? { slices: { from: this.slice, to: this.slice + 1 } } : {}),
    };
  }

  private change(ctx: ToolContext): Change {
    return {
      kind: 'stroke',
      verb: effectiveVerb(ctx),
      value: ctx.card.grow ? this.value : ctx.value,
      shapes: [this.shape(ctx)],
    };
  }

  /** What the tool waits for. */
  private asks({ card }: ToolContext): string {
    const slices = card.slices && card.reach === 'cylinder';
    switch (this.phase) {
      case 'height':
        return this.straight
          ? 'you look straight along the height: wheel, Page Up and Down or a number below give it; click to set'
          : `move for the height, click to set ${slices ? 'the first slice' : 'it'}`;
      case 'held':
        return `${slices ? `slice ${this.slice + 1}: ` : ''}arrows nudge, Enter or a click sets it`;
      default:
        return '';
    }
  }

  private show(ctx: ToolContext): ToolOutput {
    const box = this.box(ctx),
      shape = this.shape(ctx);
    return {
      ...IDLE,
      preview: this.change(ctx),
      shapes: [shape],
      asks: this.asks(ctx),
      active: true,
      waiting: this.waits ? box : null,
      wheel: this.phase === 'height' && this.straight,
      measure: { size: box.size, count: cellCount(shape, box) },
    };
  }

  private finish(ctx: ToolContext): ToolOutput {
    const commit = this.change(ctx);
    const { card } = ctx;
    if (card.slices && card.reach === 'cylinder' && this.waits) {
      // The next slice stands there as a guide until it is set too.
      const box = this.box(ctx);
      const shape = this.shape(ctx);
      const height = shape.kind === 'standing' ? box.size[shape.solid.axis] : 1;
      if (++this.slice < height) {
        this.held = box;
        this.phase = 'held';
        return { ...this.show(ctx), commit };
      }
    }
    this.stop();
    return { ...IDLE, commit };
  }

  private stop(): ToolOutput {
    this.phase = 'idle';
    this.held = null;
    this.slice = 0;
    return IDLE;
  }
}
