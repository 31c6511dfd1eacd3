import { type Box, boxEnd } from '@sphalerite/core/math';
import {
  BoxGeometry,
  BufferGeometry,
  CanvasTexture,
  DoubleSide,
  EdgesGeometry,
  Float32BufferAttribute,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  PointsMaterial,
} from 'three';

export type Tone = 'honey' | 'danger' | 'verdigris' | 'x' | 'y' | 'z' | 'quiet';

export const AXIS_COLOURS = [0xb8352b, 0x3b8a38, 0x2c66b3] as const;

export const HONEY = 0xe3a127;
export const INK = 0x2a2521;
export const RESIN = 0x9a4a12;

const DANGER = 0xc0392b;

export const TONES: Record<Tone, number> = {
  honey: HONEY,
  danger: DANGER,
  verdigris: 0x22665f,
  x: AXIS_COLOURS[0],
  y: AXIS_COLOURS[1],
  z: AXIS_COLOURS[2],
  quiet: 0x6f665c,
};

/**
 * Materials live on while geometries come and go: a material let go takes its shader program along, and
 * compiling that anew with every move of the pointer cost 150 ms a frame.
 */
const materials = new Map<string, LineBasicMaterial | MeshBasicMaterial>();

export function shared<M extends LineBasicMaterial | MeshBasicMaterial>(key: string, make: () => M): M {
  const known = materials.get(key);
  if (known) return known as M;
  const m = make();
  materials.set(key, m);
  return m;
}

export const lineMaterial = (color: number, opacity: number, depthTest: boolean): LineBasicMaterial =>
  shared(
    `line ${color} ${opacity} ${depthTest}`,
    () => new LineBasicMaterial({ color, opacity, transparent: true, depthTest }),
  );

export const fillMaterial = (color: number, opacity: number): MeshBasicMaterial =>
  shared(
    `fill ${color} ${opacity}`,
    () => new MeshBasicMaterial({ color, opacity, transparent: true, depthWrite: false, side: DoubleSide }),
  );

/** Stripes of a colour and white, as wide on every part of the page: told apart on cubes of any colour. */
export const hatchMaterial = (color: number, opacity: number): MeshBasicMaterial =>
  shared(`hatch ${color} ${opacity}`, () => {
    const m = new MeshBasicMaterial({ color, opacity, transparent: true, depthWrite: false, side: DoubleSide });
    m.onBeforeCompile = (shader) => {
      shader.fragmentShader = shader.fragmentShader.replace(
        '#include <dithering_fragment>',
        `#include <dithering_fragment>
        if (mod(gl_FragCoord.x + gl_FragCoord.y, 10.0) < 5.0) gl_FragColor.rgb = vec3(1.0);`,
      );
    };
    return m;
  });

export const onTop = (color: number, opacity: number): MeshBasicMaterial =>
  shared(
    `top ${color} ${opacity}`,
    () => new MeshBasicMaterial({ color, opacity, transparent: true, depthTest: false, depthWrite: false }),
  );

export function segments(
  points: number[],
  color: number,
  opacity: number,
  order: number,
  depthTest = false,
): LineSegments {
  const l = new LineSegments(
    new BufferGeometry().setAttribute('position', new Float32BufferAttribute(points, 3)),
    lineMaterial(color, opacity, depthTest),
  );
  l.renderOrder = order;
  return l;
}

export function boxLines(b: Box, color: number, opacity: number, behind: boolean, grow: number): LineSegments {
  const g = new EdgesGeometry(new BoxGeometry(b.size[0] + grow, b.size[1] + grow, b.size[2] + grow));
  const l = new LineSegments(g, lineMaterial(color, opacity, behind));
  const e = boxEnd(b);
  l.position.set((b.min[0] + e[0]) / 2, (b.min[1] + e[1]) / 2, (b.min[2] + e[2]) / 2);
  l.renderOrder = 10;
  return l;
}

export function boxFill(b: Box, color: number, opacity: number, hatched = false): Mesh {
  const m = new Mesh(
    new BoxGeometry(b.size[0] + 0.03, b.size[1] + 0.03, b.size[2] + 0.03),
    hatched ? hatchMaterial(color, opacity) : fillMaterial(color, opacity),
  );
  const e = boxEnd(b);
  m.position.set((b.min[0] + e[0]) / 2, (b.min[1] + e[1]) / 2, (b.min[2] + e[2]) / 2);
  m.renderOrder = 9;
  return m;
}

export const pointMaterial = (fill: string, edge: string, size: number, square = false): PointsMaterial =>
  new PointsMaterial({
    map: dotTexture(fill, edge, square),
    size,
    sizeAttenuation: false,
    transparent: true,
    depthTest: false,
    depthWrite: false,
  });

function dotTexture(fill: string, edge: string, square: boolean): CanvasTexture {
  const c = document.createElement('canvas');
  c.width = c.height = 64;
  const g = c.getContext('2d')!;
  g.beginPath();
  if (square) g.rect(10, 10, 44, 44);
  else g.arc(32, 32, 25, 0, Math.PI * 2);
  g.fillStyle = fill;
  g.fill();
  g.lineWidth = 6;
  g.strokeStyle = edge;
  g.stroke();
  return new CanvasTexture(c);
}
