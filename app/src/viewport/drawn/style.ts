import { type DataTexture, type Material, MeshBasicMaterial } from 'three';
import type { CubeForm } from './cube-material';
import type { Look } from './look';

/** How something is drawn: as it is, faintly beside what is worked on, or seen through. */
export type DrawStyle = 'plain' | 'faint' | 'glass';

/** A style with what the view adds to it. */
export interface FullStyle {
  /** A moment stands before or after what is worked on. */
  readonly style: DrawStyle | 'moment';
  /** Lines where colours meet. */
  readonly lined: boolean;
  /** Drawn once more over moments before and after. */
  readonly twice: boolean;
}
export const styleKey = ({ style, lined, twice }: FullStyle): string =>
  `${style}${lined ? ' lined' : ''}${twice ? ' twice' : ''}`;

/** One drawing of faces: with which material, in which order, and what they do with light. */
export interface Pass {
  readonly material: Material;
  readonly order: number;
  readonly casts: boolean;
  readonly receives: boolean;
}

/** Writes depth only, so that see-through neighbours do not pile up on themselves. */
const depth = new MeshBasicMaterial({ colorWrite: false });

/** The passes of solid faces, or of those that let light through. */
export function passesOf(full: FullStyle, look: Look, clear: boolean, pictures: DataTexture | null): Pass[] {
  const pass = (form: CubeForm, order: number, casts: boolean, receives: boolean): Pass => ({
    material: look.material(form, pictures),
    order,
    casts,
    receives,
  });
  switch (full.style) {
    case 'moment':
      // Moments write no depth, so that the figure of now shows over them.
      return [pass('ghost', 3, false, false)];
    case 'faint':
      // A ghost first writes its depth, so that only its nearest faces are mixed with what is behind.
      return [{ material: depth, order: 2, casts: false, receives: false }, pass('ghost', 3, false, false)];
    case 'glass':
      return [pass('glass', clear ? 1 : 0, !clear, false)];
    case 'plain':
      if (clear) return [pass('transparent', 1, false, true)];
      return full.twice ? [pass('solid', 0, true, true), pass('over', 4, false, true)] : [pass('solid', 0, true, true)];
  }
}
