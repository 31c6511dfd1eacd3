import type { Axis } from '@sphalerite/core/math';
import type { Blob as StoredBlob } from '@sphalerite/core/model';
import { BufferGeometry, CanvasTexture, DoubleSide, Float32BufferAttribute, Mesh, MeshBasicMaterial } from 'three';

/** A picture on a plane of the lattice: across the axis, at a depth, from a corner and of a size on the other two. */
export interface Picture {
  readonly image: StoredBlob;
  readonly axis: Axis;
  readonly depth: number;
  readonly at: readonly [number, number];
  readonly size: readonly [number, number];
  readonly opacity: number;
}

interface Loaded {
  readonly texture: CanvasTexture;
  readonly material: MeshBasicMaterial;
  ready: boolean;
}
/** Wider or higher pictures are drawn smaller: a part is at most 256 cubes. */
const MOST_PIXELS = 1024;

/** Pictures that are shown, or were at the last drawing, by their blob. */
const images = new Map<string, Loaded>();

/** Lets go of every picture that is not among those shown. */
export function keepPictures(shown: readonly Picture[]): void {
  const wanted = new Set(shown.map((p) => p.image.id));
  for (const [image, { texture, material }] of images) {
    if (wanted.has(image)) continue;
    texture.dispose();
    material.dispose();
    images.delete(image);
  }
}

function load({ type, bytes }: StoredBlob, changed: () => void): Loaded {
  const canvas = document.createElement('canvas');
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = 'srgb';
  const material = new MeshBasicMaterial({
    map: texture,
    transparent: true,
    side: DoubleSide,
    depthWrite: false,
    toneMapped: false,
  });
  const entry: Loaded = { texture, material, ready: false };
  const show = (picture: ImageBitmap): void => {
    const k = Math.min(1, MOST_PIXELS / Math.max(picture.width, picture.height));
    canvas.width = Math.max(1, Math.round(picture.width * k));
    canvas.height = Math.max(1, Math.round(picture.height * k));
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
    picture.close();
    texture.dispose();
    texture.needsUpdate = true;
    entry.ready = true;
    changed();
  };
  // A picture that the browser cannot read stays away; it was read once, when it was brought in.
  void createImageBitmap(new Blob([bytes], { type })).then(show, () => undefined);
  return entry;
}

export function pictureOn(p: Picture, changed: () => void): Mesh {
  const known = images.get(p.image.id) ?? load(p.image, changed);
  images.set(p.image.id, known);
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
  const m = new Mesh(g, known.material);
  // Two references may show one picture, each with an opacity of its own.
  m.onBeforeRender = () => void (known.material.opacity = p.opacity);
  m.renderOrder = 1;
  m.visible = known.ready;
  return m;
}
