/** What a ring is to be: `sides` equal bars around a hole. Lengths in cubes. */
export interface RingPlan {
  /** 3 to 64. */
  readonly sides: number;
  /** From the middle of the ring to the inner face of a bar; any length. */
  readonly inner: number;
  /** Of a bar, away from the middle. */
  readonly thick: number;
}

/** One way of making a ring out of equal bars of whole cubes. */
export interface RingVariant {
  /**
   * `bars`: one a side, each hung on the last and turned by 360/n, with least gap and overlap. `closed`: the same, long enough to
   * leave no notch at the outside. `crossed`: one bar through the middle, crossed with itself, each time making two sides.
   */
  readonly kind: 'bars' | 'closed' | 'crossed';
  /** Length of a bar along its side (bars), or right across (crossed). */
  readonly length: number;
  /** Height of a bar away from the middle (bars), or its width, which is the length of a side (crossed). */
  readonly width: number;
  /** Area, in squares of a cube, that the closed shape has and no bar covers. */
  readonly gap: number;
  /** Area that more than one bar covers, each further bar counted (bars), or that stands out of the shape (crossed). */
  readonly overlap: number;
  /** How wide each notch between two bars is at the outside, in cubes; 0 for none. */
  readonly notch: number;
  readonly bones: number;
  /** Triangles as shipped: six faces a bar. */
  readonly triangles: number;
}

/**
 * The length of the side halfway through the bars, at which gap and overlap of uncut ends are equal: the best real length. With
 * |y·tan(π/n) − h| summed over the height of a bar, h = half a length is best at the middle of the heights (the median).
 */
export const ringSide = ({ sides, inner, thick }: RingPlan): number =>
  2 * Math.tan(Math.PI / sides) * (inner + thick / 2);

/** The length of a side at the outside: bars as long as that leave no notch. */
export const outerSide = ({ sides, inner, thick }: RingPlan): number => 2 * Math.tan(Math.PI / sides) * (inner + thick);

/** How far inside a ring begins whose bars are best at a length. May be nothing or less, where the bars are too thick for it. */
export const innerFor = (sides: number, thick: number, length: number): number =>
  length / (2 * Math.tan(Math.PI / sides)) - thick / 2;

/** ∫ max(0, s·(y·k − h)) dy over y from a to b, for s = 1 or −1. */
function beyond(a: number, b: number, k: number, h: number, s: 1 | -1): number {
  const at = Math.min(b, Math.max(a, h / k));
  const [lo, hi] = s > 0 ? [at, b] : [a, at];
  return Math.abs((k * (hi * hi - lo * lo)) / 2 - h * (hi - lo));
}

/** Gap and overlap of a ring of bars of one length: each joint is the same, and its two halves mirror one another. */
export function ringOfBars(plan: RingPlan, length: number, kind: 'bars' | 'closed' = 'bars'): RingVariant {
  const k = Math.tan(Math.PI / plan.sides),
    out = plan.inner + plan.thick;
  return {
    kind,
    length,
    notch: Math.max(0, 2 * k * out - length),
    width: plan.thick,
    bones: plan.sides,
    triangles: plan.sides * 12,
    gap: 2 * plan.sides * beyond(plan.inner, out, k, length / 2, 1),
    overlap: 2 * plan.sides * beyond(plan.inner, out, k, length / 2, -1),
  };
}

/**
 * The ways to make a ring with whole cubes, best first: bars of the length that closes it with least gap and overlap together, and for
 * even numbers one bar crossed with itself, which fills the shape and needs half the bones.
 */
export function ringVariants(plan: RingPlan): RingVariant[] {
  const best = (list: RingVariant[]): RingVariant =>
    list.reduce((a, b) => (b.gap + b.overlap < a.gap + a.overlap - 1e-9 ? b : a));
  const side = ringSide(plan);
  const bars = best([Math.max(1, Math.floor(side)), Math.ceil(side)].map((l) => ringOfBars(plan, l)));
  const whole = Math.ceil(outerSide(plan) - 1e-9);
  const out = [bars, ...(whole > bars.length ? [ringOfBars(plan, whole, 'closed')] : [])];
  if (plan.sides % 2 === 0) {
    const across = Math.max(1, Math.round(2 * (plan.inner + plan.thick))),
      wide = across * Math.tan(Math.PI / plan.sides);
    out.push(best([Math.max(1, Math.floor(wide)), Math.ceil(wide)].map((w) => crossedBars(plan.sides, across, w))));
  }
  return out;
}

/** Bars through the middle, `across` long and `width` wide: what the regular shape has beyond their union, and they beyond it. */
function crossedBars(sides: number, across: number, width: number): RingVariant {
  // One of 2n equal slices from a bar's middle line to the next corner line; inside it the nearest bar alone counts for the outline.
  const r = across / 2,
    angle = Math.PI / sides,
    steps = 4096,
    h = width / 2;
  let gap = 0,
    overlap = 0;
  for (let i = 0; i < steps; i++) {
    const a = ((i + 0.5) / steps) * angle,
      wanted = r / Math.cos(a);
    const reach = (off: number): number =>
      Math.min(r / Math.max(1e-12, Math.cos(off)), h / Math.max(1e-12, Math.abs(Math.sin(off))));
    // The two bars beside this slice reach furthest in it.
    const got = Math.max(reach(a), reach(2 * angle - a));
    const slice = ((angle / steps) * Math.abs(got * got - wanted * wanted)) / 2;
    if (got < wanted) gap += slice;
    else overlap += slice;
  }
  return {
    kind: 'crossed',
    length: across,
    width,
    notch: Math.max(0, across * Math.tan(angle) - width),
    gap: gap * 2 * sides,
    overlap: overlap * 2 * sides,
    bones: sides / 2,
    triangles: (sides / 2) * 12,
  };
}
