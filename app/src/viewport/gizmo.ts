import { AXES, type Vec3, add, scale } from '@sphalerite/core/math';
import { type GizmoFrame, type Grip, across } from '../tools/gizmo';
import type { Viewport } from './viewport';

/** The gizmo as it is drawn: lengths in the world, so that it keeps its size on screen. */
export interface DrawnGizmo extends GizmoFrame {
  readonly arrow: number;
  readonly ring: number;
  readonly head: number;
  /** What the pointer is over or the hand holds. */
  readonly hot: Grip | null;
}

/** Handles keep their size on screen at any zoom: world units for a number of pixels at a point. */
export const pixels = (view: Viewport, n: number): number => (view.camera.span * n) / view.size.height;

/** Pixels: how long arrows and how wide rings are, and how large what is taken hold of at an arrow's end. */
const ARROW = 64;
const RING = 58;
const HEAD = 10;
/** Where the square between two arrows begins, as a share of their length, and how large it is, in heads. */
const SQUARE_AT = 0.4;
const SQUARE_SIZE = 2.2;

/** @param reach – how far a large piece stands out from its middle, in the world: arrows go on beyond it */
export function gizmoSize(view: Viewport, reach = 0): Pick<DrawnGizmo, 'arrow' | 'ring' | 'head'> {
  return {
    arrow: reach > 0 ? Math.max(pixels(view, 74), reach + pixels(view, 26)) : pixels(view, ARROW),
    ring: pixels(view, RING),
    head: reach > 0 ? pixels(view, HEAD) : pixels(view, ARROW) * 0.1,
  };
}

/** Within this many pixels of a handle the pointer takes hold of it. */
const GRAB = 9;
const SAMPLES = 48;

/** What of a gizmo is under a point of the page. */
export function gripUnder(view: Viewport, g: DrawnGizmo, x: number, y: number): Grip | null {
  let best = GRAB,
    found: Grip | null = null;
  const onPage = view.projection();
  const look = (kind: Grip['kind'], axis: Grip['axis'], at: Vec3): void => {
    const s = onPage(at);
    const d = Math.hypot(s.x - x, s.y - y);
    if (d < best) [best, found] = [d, { kind, axis }];
  };
  for (const axis of AXES) {
    if (g.modes.includes('turn')) {
      const [u, v] = across(g.axes[axis]);
      for (let k = 0; k < SAMPLES; k++) {
        const a = (k / SAMPLES) * 2 * Math.PI;
        look('ring', axis, add(g.at, add(scale(u, Math.cos(a) * g.ring), scale(v, Math.sin(a) * g.ring))));
      }
    }
    if (!g.modes.includes('move') && !g.modes.includes('scale')) continue;
    const kind = g.modes.includes('move') ? 'axis' : 'scale';
    for (let k = 4; k <= 12; k++) look(kind, axis, add(g.at, scale(g.axes[axis], (k / 11) * g.arrow)));
  }
  return found ?? (g.modes.includes('move') ? squareUnder(onPage, g, x, y) : null);
}

/** The corners of the square that moves along all axes but one. */
export function squareCorners(g: DrawnGizmo, axis: Grip['axis']): [Vec3, Vec3, Vec3, Vec3] {
  const [u, v] = AXES.filter((a) => a !== axis).map((a) => g.axes[a]) as [Vec3, Vec3];
  const near = SQUARE_AT * g.arrow,
    far = near + SQUARE_SIZE * g.head;
  const corner = (a: number, b: number): Vec3 => add(g.at, add(scale(u, a), scale(v, b)));
  return [corner(near, near), corner(far, near), corner(far, far), corner(near, far)];
}

function squareUnder(onPage: ReturnType<Viewport['projection']>, g: DrawnGizmo, x: number, y: number): Grip | null {
  for (const axis of AXES) {
    const corners = squareCorners(g, axis).map((c) => onPage(c));
    let inside = true,
      sign = 0;
    corners.forEach((a, i) => {
      const b = corners[(i + 1) % 4]!;
      const side = Math.sign((b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x));
      if (sign === 0) sign = side;
      else if (side !== sign) inside = false;
    });
    // Seen from its edge it is a line that nobody means.
    const wide = Math.hypot(corners[0]!.x - corners[2]!.x, corners[0]!.y - corners[2]!.y);
    const high = Math.hypot(corners[1]!.x - corners[3]!.x, corners[1]!.y - corners[3]!.y);
    if (inside && Math.min(wide, high) > 5) return { kind: 'plane', axis };
  }
  return null;
}
