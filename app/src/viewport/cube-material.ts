import { type Palette, hexToLinear } from '@sphalerite/core/palette';
import { DataTexture, FloatType, FrontSide, MeshLambertMaterial, NearestFilter, RGBAFormat } from 'three';

/** One pixel a palette byte: linear colour, and the glow in alpha. Editing a swatch changes this only, no mesh. */
export function paletteTexture(palette: Palette): DataTexture {
  const data = new Float32Array(256 * 4).fill(0.4);
  for (const s of palette.swatches) {
    data.set(hexToLinear(s.colour), s.byte * 4);
    data[s.byte * 4 + 3] = Math.min(4, s.emissive);
  }
  for (let i = 0; i < 256; i++) if (!palette.swatches.some((s) => s.byte === i)) data[i * 4 + 3] = 0;
  const t = new DataTexture(data, 256, 1, RGBAFormat, FloatType);
  t.magFilter = t.minFilter = NearestFilter;
  t.needsUpdate = true;
  return t;
}

export interface CubeMaterialUniforms {
  swatches: { value: DataTexture };
  edges: { value: number };
}

/**
 * Lambert light on cubes coloured by palette byte, with fine lines between cubes where they are large enough on
 * screen. The ghost form washes colours out, for neighbours.
 */
export function cubeMaterial(uniforms: CubeMaterialUniforms, ghost: boolean): MeshLambertMaterial {
  const m = new MeshLambertMaterial({ shadowSide: FrontSide, transparent: ghost, opacity: ghost ? 0.55 : 1, depthWrite: !ghost });
  m.onBeforeCompile = (shader) => {
    Object.assign(shader.uniforms, uniforms);
    shader.vertexShader = shader.vertexShader
      .replace('#include <common>', '#include <common>\nattribute float swatch;\nvarying float vSwatch;\nvarying vec3 vLattice;\nvarying vec3 vFace;')
      .replace('#include <begin_vertex>', '#include <begin_vertex>\nvSwatch = swatch;\nvLattice = position;\nvFace = normal;');
    shader.fragmentShader = shader.fragmentShader
      .replace('#include <common>', '#include <common>\nuniform sampler2D swatches;\nuniform float edges;\nvarying float vSwatch;\nvarying vec3 vLattice;\nvarying vec3 vFace;')
      .replace('#include <color_fragment>', `
        vec4 swatchColour = texture2D(swatches, vec2((vSwatch + 0.5) / 256.0, 0.5));
        diffuseColor.rgb = ${ghost ? 'mix(swatchColour.rgb, vec3(0.80, 0.74, 0.65), 0.66)' : 'swatchColour.rgb'};
        vec3 line = abs(fract(vLattice - 0.5) - 0.5) / max(fwidth(vLattice), vec3(1e-5));
        line = mix(line, vec3(9.0), abs(vFace));
        float near = 1.0 - clamp(min(line.x, min(line.y, line.z)), 0.0, 1.0);
        float large = clamp(0.16 / max(max(fwidth(vLattice.x), fwidth(vLattice.y)), fwidth(vLattice.z)) - 0.6, 0.0, 1.0);
        diffuseColor.rgb *= 1.0 - edges * near * large * 0.16;`)
      .replace('#include <emissivemap_fragment>', ghost ? '' : 'totalEmissiveRadiance += swatchColour.rgb * min(swatchColour.a, 1.5) * 0.4;');
  };
  m.customProgramCacheKey = () => (ghost ? 'ghost' : 'cubes');
  return m;
}
