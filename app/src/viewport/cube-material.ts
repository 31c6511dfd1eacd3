import { type Palette, hexToLinear } from '@sphalerite/core/palette';
import { DataTexture, FloatType, FrontSide, MeshLambertMaterial, NearestFilter, RGBAFormat } from 'three';

/** One pixel a palette byte: linear colour, and the glow in alpha. Editing a swatch changes this only, no mesh. */
export function paletteTexture(palette: Palette): DataTexture {
  const data = new Float32Array(256 * 4).fill(0.4);
  for (const s of palette.swatches) {
    data.set(hexToLinear(s.colour), s.byte * 4);
    // Helpers are told from the rest by a glow below zero.
    data[s.byte * 4 + 3] = s.helper ? -1 : Math.min(4, s.emissive);
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
  /** 0 shows swatches as they are, without light; 1 lights them. */
  lit: { value: number };
  glow: { value: number };
}

/**
 * Lambert light on cubes coloured by palette byte, with fine lines between cubes where they are large enough on
 * screen. The ghost form washes colours out, for neighbours.
 */
export function cubeMaterial(uniforms: CubeMaterialUniforms, form: 'solid' | 'ghost' | 'glass'): MeshLambertMaterial {
  const ghost = form === 'ghost';
  const m = new MeshLambertMaterial({ shadowSide: FrontSide, transparent: form !== 'solid', opacity: ghost ? 0.55 : form === 'glass' ? 0.42 : 1, depthWrite: form === 'solid' });
  m.onBeforeCompile = (shader) => {
    Object.assign(shader.uniforms, uniforms);
    shader.vertexShader = shader.vertexShader
      .replace('#include <common>', '#include <common>\nattribute float swatch;\nvarying float vSwatch;\nvarying vec3 vLattice;\nvarying vec3 vFace;')
      .replace('#include <begin_vertex>', '#include <begin_vertex>\nvSwatch = swatch;\nvLattice = position;\nvFace = normal;');
    shader.fragmentShader = shader.fragmentShader
      .replace('#include <common>', '#include <common>\nuniform sampler2D swatches;\nuniform float edges;\nuniform float lit;\nuniform float glow;\nvarying float vSwatch;\nvarying vec3 vLattice;\nvarying vec3 vFace;')
      .replace('#include <color_fragment>', `
        vec4 swatchColour = texture2D(swatches, vec2((vSwatch + 0.5) / 256.0, 0.5));
        diffuseColor.rgb = ${ghost ? 'mix(swatchColour.rgb, vec3(0.80, 0.74, 0.65), 0.66)' : 'swatchColour.rgb'};
        vec3 line = abs(fract(vLattice - 0.5) - 0.5) / max(fwidth(vLattice), vec3(1e-5));
        line = mix(line, vec3(9.0), abs(vFace));
        float near = 1.0 - clamp(min(line.x, min(line.y, line.z)), 0.0, 1.0);
        float large = clamp(0.16 / max(max(fwidth(vLattice.x), fwidth(vLattice.y)), fwidth(vLattice.z)) - 0.6, 0.0, 1.0);
        diffuseColor.rgb *= 1.0 - edges * near * large * 0.16;
        float hatch = step(0.5, fract((vLattice.x + vLattice.y + vLattice.z) * 1.5));
        if (swatchColour.a < 0.0) diffuseColor.rgb = mix(diffuseColor.rgb, mix(vec3(0.9), vec3(0.16), hatch), 0.55);`)
      .replace('#include <opaque_fragment>', 'outgoingLight = mix(diffuseColor.rgb, outgoingLight, lit);\n#include <opaque_fragment>')
      .replace('#include <emissivemap_fragment>', ghost ? '' : 'totalEmissiveRadiance += swatchColour.rgb * clamp(swatchColour.a, 0.0, 1.5) * 0.4 * glow;');
  };
  m.customProgramCacheKey = () => form;
  return m;
}
