import type { Axis } from '@sphalerite/core/math';
import { BufferGeometry, CanvasTexture, DoubleSide, Float32BufferAttribute, Mesh, MeshBasicMaterial } from 'three';
import { shared } from './overlay-materials';

/** A picture on a plane of the lattice: across the axis, at a depth, from a corner and of a size on the other two. */
export interface Picture {
  readonly image: string;
  readonly axis: Axis;
  readonly depth: number;
  readonly at: readonly [number, number];
  readonly size: readonly [number, number];
  readonly opacity: number;
}

const images = new Map<string, { texture: CanvasTexture; ready: boolean }>();

export function pictureOn(p: Picture, changed: () => void): Mesh {
  let known = images.get(p.image);
  if (!known) {
    const canvas = document.createElement('canvas');
    const entry = { texture: new CanvasTexture(canvas), ready: false };
    entry.texture.colorSpace = 'srgb';
    images.set(p.image, (known = entry));
    const img = new Image();
    img.onload = () => {
      canvas.width = img.naturalWidth;
      canvas.height = img.naturalHeight;
      canvas.getContext('2d')!.drawImage(img, 0, 0);
      entry.texture.dispose();
      entry.texture.needsUpdate = true;
      entry.ready = true;
      changed();
    };
    img.src = p.image;
  }
  // Left to right and bottom to top of the picture: x y from the front, z y from the side, x z from above.
  const [u, v]: readonly [Axis, Axis] = p.axis === 2 ? [0, 1] : p.axis === 0 ? [2, 1] : [0, 2];
  const point = (s: number, t: number): number[] => {
    const at = [0, 0, 0];
    at[p.axis] = p.depth;
    at[u] = p.at[0] + s * p.size[0];
    at[v] = p.at[1] + t * p.size[1];
    return at;
  };
  const flip = p.axis === 1;
  const uv = (s: number, t: number): number[] => [s, flip ? 1 - t : t];
  const g = new BufferGeometry();
  const corners = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 0],
    [1, 1],
    [0, 1],
  ] as const;
  g.setAttribute(
    'position',
    new Float32BufferAttribute(
      corners.flatMap(([s, t]) => point(s, t)),
      3,
    ),
  );
  g.setAttribute(
    'uv',
    new Float32BufferAttribute(
      corners.flatMap(([s, t]) => uv(s, t)),
      2,
    ),
  );
  const m = new Mesh(
    g,
    shared(
      `picture ${p.image.length} ${p.image.slice(-40)} ${p.opacity}`,
      () =>
        new MeshBasicMaterial({
          map: known.texture,
          transparent: true,
          opacity: p.opacity,
          side: DoubleSide,
          depthWrite: false,
          toneMapped: false,
        }),
    ),
  );
  m.renderOrder = 1;
  m.visible = known.ready;
  return m;
}
