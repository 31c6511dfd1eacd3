import { AXES, type Vec3, add, scale } from '@sphalerite/core/math';
import {
  BoxGeometry,
  BufferGeometry,
  ConeGeometry,
  DoubleSide,
  Float32BufferAttribute,
  Mesh,
  MeshBasicMaterial,
  type Object3D,
  TorusGeometry,
  Vector3,
} from 'three';
import { type Grip, sameGrip } from '../tools/gizmo';
import { type DrawnGizmo, squareCorners } from './gizmo';
import { AXIS_COLOURS, onTop, segments, shared } from './overlay-materials';

const ORDER = 23;

/** The gizmo over the cubes: what the pointer is over stands out, the rest draws back. */
export function gizmoObjects(g: DrawnGizmo): Object3D[] {
  const strength = (kind: Grip['kind'], axis: Grip['axis'], full: number, dim: number): number =>
    g.hot === null || sameGrip(g.hot, { kind, axis }) ? full : dim;
  const out: Object3D[] = [];
  for (const axis of AXES) {
    const colour = AXIS_COLOURS[axis];
    if (g.modes.includes('turn')) {
      const hot = sameGrip(g.hot, { kind: 'ring', axis });
      const ring = new Mesh(
        new TorusGeometry(g.ring, g.ring * (hot ? 0.028 : 0.015), 6, 72),
        onTop(colour, strength('ring', axis, 0.95, 0.35)),
      );
      ring.position.set(...g.at);
      ring.lookAt(...add(g.at, g.axes[axis]));
      out.push(ring);
    }
    const moves = g.modes.includes('move');
    if (!moves && !g.modes.includes('scale')) continue;
    const end: Vec3 = add(g.at, scale(g.axes[axis], g.arrow));
    // What scales all alike lights up as a whole.
    const opacity = moves || !g.even ? strength(moves ? 'axis' : 'scale', axis, 1, 0.4) : 1;
    out.push(segments([...g.at, ...end], colour, opacity, ORDER));
    const head = moves ? arrowHead(g, axis, opacity) : scaleHead(g, axis, opacity);
    head.position.set(...end);
    out.push(head);
    if (moves) out.push(square(g, axis, strength('plane', axis, 0.5, 0.16)));
  }
  for (const o of out) o.renderOrder = ORDER;
  return out;
}

/** What one takes hold of to move: the point of an arrow. */
function arrowHead(g: DrawnGizmo, axis: Grip['axis'], opacity: number): Mesh {
  const head = new Mesh(new ConeGeometry(g.head * 0.75, g.head * 2, 12), onTop(AXIS_COLOURS[axis], opacity));
  head.quaternion.setFromUnitVectors(new Vector3(0, 1, 0), new Vector3(...g.axes[axis]));
  return head;
}
/** What one pulls to scale: a cube, turned as its axes are. */
function scaleHead(g: DrawnGizmo, axis: Grip['axis'], opacity: number): Mesh {
  const head = new Mesh(new BoxGeometry(1.4 * g.head, 1.4 * g.head, 1.4 * g.head), onTop(AXIS_COLOURS[axis], opacity));
  head.quaternion.setFromUnitVectors(new Vector3(0, 1, 0), new Vector3(...g.axes[axis]));
  return head;
}

/** The square between two arrows, in the colour of the axis that it leaves alone. */
function square(g: DrawnGizmo, axis: Grip['axis'], opacity: number): Mesh {
  const shape = new BufferGeometry();
  shape.setAttribute('position', new Float32BufferAttribute(squareCorners(g, axis).flat(), 3));
  shape.setIndex([0, 1, 2, 0, 2, 3]);
  const material = shared(
    `square ${axis} ${opacity}`,
    () =>
      new MeshBasicMaterial({
        color: AXIS_COLOURS[axis],
        opacity,
        transparent: true,
        depthTest: false,
        depthWrite: false,
        side: DoubleSide,
      }),
  );
  return new Mesh(shape, material);
}
