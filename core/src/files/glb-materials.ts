import { byteTable } from '../voxel';
import type { Document, Material, Primitive } from '@gltf-transform/core';
import { KHRMaterialsEmissiveStrength, KHRMaterialsVariants, type Variant } from '@gltf-transform/extensions';
import type { Project } from '../model';
import { type Colourway, type Palette, recoloured, everTransparent } from '../palette';
import { paletteStrip } from './palette-strip';

/** Swatches of a palette that share a material: those of one slot, solid or see-through. */
export interface MaterialGroup {
  readonly slot: string;
  readonly transparent: boolean;
  /** 1 for each of its bytes. */
  readonly bytes: Uint8Array;
}

const NEAREST = 9728;
const CLAMP = 33071;

/** Materials of a file, made as they are asked for: one for each palette, slot and colourway, all reading strips of one pixel a swatch. */
export class PaletteMaterials {
  private readonly made = new Map<string, Material>();
  private readonly strips = new Map<Palette, (transparent: boolean, name: string) => Material>();
  private readonly variants: readonly { way: Colourway; variant: Variant }[];

  constructor(
    private readonly doc: Document,
    project: Project,
  ) {
    const extension = project.colourways.length > 0 ? doc.createExtension(KHRMaterialsVariants) : null;
    this.variants = extension
      ? project.colourways.map((way) => ({ way, variant: extension.createVariant(way.name) }))
      : [];
  }

  /** Slots of a palette, solid before see-through. What is see-through in any colourway counts as such. */
  groups(palette: Palette): MaterialGroup[] {
    const transparent = everTransparent(
      palette,
      this.variants.map((v) => v.way),
    );
    const out = new Map<string, MaterialGroup>();
    const group = (slot: string, transparent: boolean): MaterialGroup => {
      const key = `${transparent ? 1 : 0} ${slot}`;
      let g = out.get(key);
      if (!g) out.set(key, (g = { slot, transparent, bytes: byteTable() }));
      return g;
    };
    // Bytes that the palette does not list are solid and of no slot.
    const plain = group('', false);
    plain.bytes.fill(1, 1);
    for (const s of palette.swatches) {
      plain.bytes[s.byte] = 0;
      group(s.slot, transparent[s.byte] === 1).bytes[s.byte] = 1;
    }
    return [...out].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, g]) => g);
  }

  /** Gives a primitive its material, and one for each colourway that changes its palette. */
  paint(primitive: Primitive, palette: Palette, group: MaterialGroup): void {
    primitive.setMaterial(this.material(palette, group, ''));
    if (this.variants.length === 0) return;
    const extension = this.doc.createExtension(KHRMaterialsVariants);
    const list = extension.createMappingList();
    for (const { way, variant } of this.variants) {
      list.addMapping(
        extension
          .createMapping()
          .setMaterial(
            this.material(recoloured(palette, way), group, recoloured(palette, way) === palette ? '' : way.name),
          )
          .addVariant(variant),
      );
    }
    primitive.setExtension('KHR_materials_variants', list);
  }

  private material(palette: Palette, { slot, transparent }: MaterialGroup, way: string): Material {
    const name = `${slot || palette.name}${transparent ? ' transparent' : ''}${way ? ` (${way})` : ''}`;
    const key = JSON.stringify([palette.id, slot, transparent, way]);
    let m = this.made.get(key);
    if (!m) this.made.set(key, (m = this.strip(palette, way)(transparent, name)));
    return m;
  }

  private strip(palette: Palette, way: string): (transparent: boolean, name: string) => Material {
    const old = this.strips.get(palette);
    if (old) return old;
    const { doc } = this;
    const strip = paletteStrip(palette);
    const title = palette.name + (way ? ` (${way})` : '');
    const texture = (name: string, image: Uint8Array) =>
      doc
        .createTexture(`${title} ${name}`)
        .setMimeType('image/png')
        .setImage(image as Uint8Array<ArrayBuffer>);
    const colour = texture('colour', strip.colour);
    const surface = texture('roughness-metal', strip.roughnessMetal);
    const glow = strip.glow ? texture('glow', strip.glow) : null;
    const strength =
      strip.glowStrength > 1
        ? doc
            .createExtension(KHRMaterialsEmissiveStrength)
            .createEmissiveStrength()
            .setEmissiveStrength(strip.glowStrength)
        : null;
    const make = (transparent: boolean, name: string): Material => {
      const m = doc
        .createMaterial(name)
        .setBaseColorTexture(colour)
        .setMetallicRoughnessTexture(surface)
        .setRoughnessFactor(1)
        .setMetallicFactor(1);
      if (glow) m.setEmissiveTexture(glow).setEmissiveFactor([1, 1, 1]);
      if (strength) m.setExtension('KHR_materials_emissive_strength', strength);
      if (transparent) m.setAlphaMode('BLEND');
      for (const info of [
        m.getBaseColorTextureInfo(),
        m.getMetallicRoughnessTextureInfo(),
        m.getEmissiveTextureInfo(),
      ]) {
        info?.setMagFilter(NEAREST).setMinFilter(NEAREST).setWrapS(CLAMP).setWrapT(CLAMP);
      }
      return m;
    };
    this.strips.set(palette, make);
    return make;
  }
}
