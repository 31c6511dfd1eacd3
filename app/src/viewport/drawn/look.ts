import type { Palette } from '@sphalerite/core/palette';
import type { DataTexture, Material } from 'three';
import { type CubeForm, type ViewUniforms, cubeMaterial, paletteTexture } from './cube-material';

let count = 0;

/** The colours of a palette as materials; a changed palette changes their texture only. */
export class Look {
  readonly id = count++;
  private readonly swatches: { value: DataTexture };
  private readonly materials = new Map<CubeForm, Material>();
  private readonly pictured = new WeakMap<DataTexture, Map<CubeForm, Material>>();

  constructor(
    palette: Palette,
    private readonly uniforms: ViewUniforms,
  ) {
    this.swatches = { value: paletteTexture(palette) };
  }

  setPalette(palette: Palette): void {
    this.swatches.value.dispose();
    this.swatches.value = paletteTexture(palette);
  }

  /** @param pictures – the faces of a terrain cube */
  material(form: CubeForm, pictures: DataTexture | null): Material {
    let known = this.materials;
    if (pictures) {
      known = this.pictured.get(pictures) ?? new Map<CubeForm, Material>();
      this.pictured.set(pictures, known);
    }
    let m = known.get(form);
    if (!m) known.set(form, (m = cubeMaterial({ ...this.uniforms, swatches: this.swatches }, form, pictures)));
    return m;
  }

  /** Materials keep their programs: compiling those anew costs far more than they hold. */
  dispose(): void {
    this.swatches.value.dispose();
  }
}
