import { type Palette, hexToLinear } from '@sphalerite/core/palette';
import { BYTE_VALUES } from '@sphalerite/core/voxel';
import { DataTexture, FloatType, FrontSide, MeshLambertMaterial, NearestFilter, RGBAFormat } from 'three';

/**
 * Two pixels a palette byte: linear colour with the glow in alpha, and below it roughness, metalness and opacity. Editing a
 * swatch changes this only, no mesh.
 */
export function paletteTexture(palette: Palette): DataTexture {
  const data = new Float32Array(512 * 4).fill(0.4);
  for (let i = 0; i < BYTE_VALUES; i++) {
    data[i * 4 + 3] = 0;
    data.set([0.8, 0, 1, 0], (BYTE_VALUES + i) * 4);
  }
  for (const s of palette.swatches) {
    data.set(hexToLinear(s.colour), s.byte * 4);
    // Helpers are told from the rest by a glow below zero.
    data[s.byte * 4 + 3] = s.helper ? -1 : Math.min(4, s.emissive);
    data.set([s.roughness, s.metalness, s.opacity, 0], (BYTE_VALUES + s.byte) * 4);
  }
  const t = new DataTexture(data, BYTE_VALUES, 2, RGBAFormat, FloatType);
  t.magFilter = t.minFilter = NearestFilter;
  t.needsUpdate = true;
  return t;
}

/** Switches that all materials of a view share. */
export interface ViewUniforms {
  edges: { value: number };
  /** 0 shows swatches as they are, without light; 1 lights them; 2 shows normals in the world, 3 how far away they are. */
  lit: { value: number };
  glow: { value: number };
  /** How bright that is which smooth swatches mirror. */
  around: { value: number };
}

export interface CubeMaterialUniforms extends ViewUniforms {
  swatches: { value: DataTexture };
}

/** What smooth and metal swatches mirror: a bright horizon under a pale sky, over dim ground. Blurred by roughness. */
const MIRRORED = `
  vec3 mirrored(vec3 way, float rough) {
    float soft = 0.06 + rough * 0.9;
    float up = smoothstep(-soft, soft, way.y);
    vec3 sky = mix(vec3(0.98, 0.95, 0.9), vec3(0.5, 0.62, 0.78), smoothstep(0.0, 1.0, way.y));
    // A wide bright window to one side, so that turning the piece makes it glint.
    float window = smoothstep(0.55 - soft * 0.4, 0.62 + soft * 0.6, dot(way, normalize(vec3(0.5, 0.5, 0.7))));
    return mix(vec3(0.16, 0.13, 0.11), sky, up) + window * 1.1 * (1.0 - rough);
  }`;

export type CubeForm = 'solid' | 'over' | 'transparent' | 'ghost' | 'glass';

/**
 * Lambert light on cubes coloured by palette byte, with a mirrored surrounding by roughness and metalness, and fine lines
 * between cubes where they are large enough on screen. The transparent form lets light through by its swatch's opacity, the
 * ghost form washes colours out, for neighbours. What is drawn over ghosts is solid, but comes after them.
 *
 * @param pictures – palette bytes of the faces of a terrain cube; without, each vertex says its own byte
 */
export function cubeMaterial(
  uniforms: CubeMaterialUniforms,
  form: CubeForm,
  pictures: DataTexture | null = null,
): MeshLambertMaterial {
  const ghost = form === 'ghost';
  const m = new MeshLambertMaterial({
    shadowSide: FrontSide,
    transparent: form !== 'solid',
    opacity: ghost ? 0.55 : form === 'glass' ? 0.42 : 1,
    depthWrite: form === 'solid' || form === 'over',
  });
  m.onBeforeCompile = (shader) => {
    Object.assign(shader.uniforms, uniforms, pictures ? { pictures: { value: pictures } } : {});
    shader.vertexShader = shader.vertexShader
      .replace(
        '#include <common>',
        `#include <common>\nattribute ${pictures ? 'vec2' : 'float'} swatch;\nvarying ${pictures ? 'vec2' : 'float'} vSwatch;\nvarying vec3 vLattice;\nvarying vec3 vFace;`,
      )
      .replace(
        '#include <begin_vertex>',
        '#include <begin_vertex>\nvSwatch = swatch;\nvLattice = position;\nvFace = normal;',
      );
    shader.fragmentShader = shader.fragmentShader
      .replace(
        '#include <common>',
        `#include <common>\n${pictures ? 'uniform sampler2D pictures;\n' : ''}uniform sampler2D swatches;\nuniform float edges;\nuniform float lit;\nuniform float glow;\nuniform float around;\nvarying ${pictures ? 'vec2' : 'float'} vSwatch;\nvarying vec3 vLattice;\nvarying vec3 vFace;${ghost ? '' : MIRRORED}`,
      )
      .replace(
        '#include <color_fragment>',
        `
        float byte = ${pictures ? 'floor(texture2D(pictures, vSwatch).r * 255.0 + 0.5)' : 'vSwatch'};
        vec4 swatchColour = texture2D(swatches, vec2((byte + 0.5) / 256.0, 0.25));
        vec4 surface = texture2D(swatches, vec2((byte + 0.5) / 256.0, 0.75));
        diffuseColor.rgb = ${ghost ? 'mix(swatchColour.rgb, vec3(0.80, 0.74, 0.65), 0.66)' : 'swatchColour.rgb'};
        vec3 line = abs(fract(vLattice - 0.5) - 0.5) / max(fwidth(vLattice), vec3(1e-5));
        line = mix(line, vec3(9.0), abs(vFace));
        float near = 1.0 - clamp(min(line.x, min(line.y, line.z)), 0.0, 1.0);
        float large = clamp(0.16 / max(max(fwidth(vLattice.x), fwidth(vLattice.y)), fwidth(vLattice.z)) - 0.6, 0.0, 1.0);
        diffuseColor.rgb *= 1.0 - edges * near * large * 0.16;
        float hatch = step(0.5, fract((vLattice.x + vLattice.y + vLattice.z) * 1.5));
        if (swatchColour.a < 0.0) diffuseColor.rgb = mix(diffuseColor.rgb, mix(vec3(0.9), vec3(0.16), hatch), 0.55);
        vec3 unlit = diffuseColor.rgb;
        ${
          ghost
            ? ''
            : `diffuseColor.rgb *= 1.0 - 0.82 * surface.g;
        float shine = glow * clamp(swatchColour.a, 0.0, 4.0);
        // What glows shows its own colour; light from outside adds little to it.
        diffuseColor.rgb *= 1.0 - 0.7 * min(1.0, shine);`
        }
        ${form === 'transparent' ? 'diffuseColor.a *= surface.b;' : ''}`,
      )
      .replace(
        '#include <opaque_fragment>',
        `${
          ghost
            ? ''
            : `
        vec3 toEye = normalize(vViewPosition);
        float facing = clamp(dot(normal, toEye), 0.0, 1.0);
        vec3 way = inverseTransformDirection(reflect(-toEye, normal), viewMatrix);
        float smoothness = (1.0 - surface.r) * (1.0 - surface.r);
        vec3 share = mix(vec3(0.04 + 0.5 * pow(1.0 - facing, 5.0)) * smoothness, unlit * (0.55 + 0.45 * smoothness), surface.g);
        outgoingLight += share * mirrored(way, surface.r) * around;
        ${form === 'transparent' ? 'diffuseColor.a = mix(diffuseColor.a, 1.0, min(0.7, share.g * 2.0));' : ''}`
        }
        outgoingLight = mix(unlit, outgoingLight, min(lit, 1.0));
        if (lit > 2.5) outgoingLight = vec3(length(vViewPosition));
        else if (lit > 1.5) outgoingLight = inverseTransformDirection(normal, viewMatrix);
        #include <opaque_fragment>`,
      )
      .replace(
        '#include <emissivemap_fragment>',
        ghost ? '' : 'totalEmissiveRadiance += swatchColour.rgb * min(1.0, shine) * (0.7 + 0.09 * shine);',
      );
  };
  m.customProgramCacheKey = () => `${form === 'over' ? 'solid' : form}${pictures ? ' pictured' : ''}`;
  return m;
}
