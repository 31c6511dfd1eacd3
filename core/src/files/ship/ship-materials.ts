import type { Project } from '../../model';
import { type Colourway, type Palette, everTransparent, recoloured } from '../../palette';
import { byteTable } from '../../voxel';
import { paletteStrip } from './palette-strip';
import type { ShipMaterial, ShipPicture } from './ship-model';

/** Swatches of a palette that share a material: those of one slot, solid or see-through. */
export interface MaterialGroup {
  readonly slot: string;
  readonly transparent: boolean;
  /** 1 for each of its bytes. */
  readonly bytes: Uint8Array;
}

interface Strip {
  readonly colour: number;
  readonly roughnessMetal: number;
  readonly glow: number | null;
  readonly glowStrength: number;
}

/** Materials of a model, made as they are asked for: one for each palette, slot and colourway, all reading strips of one pixel a swatch. */
export class ShipMaterials {
  readonly materials: ShipMaterial[] = [];
  readonly pictures: ShipPicture[] = [];
  private readonly made = new Map<Palette, Map<string, number>>();
  private readonly ids = new Map<Palette, number>();
  private readonly strips = new Map<Palette, Strip>();
  private readonly groupsOf = new Map<Palette, readonly MaterialGroup[]>();
  private readonly names = new Map<Palette, string>();

  /** @param looks – colourways that everything can be seen in */
  constructor(
    private readonly project: Project,
    readonly looks: readonly Colourway[],
  ) {
    this.nameLooks(project);
  }

  /** Palettes as they are in a project's colourways are called after those. */
  nameLooks({ palettes, colourways }: Project): void {
    for (const way of colourways)
      for (const p of palettes) {
        const other = recoloured(p, way);
        if (other !== p) this.names.set(other, way.name);
      }
  }

  /** A number for a palette, the same each time. */
  idOf(palette: Palette): number {
    let id = this.ids.get(palette);
    if (id === undefined) this.ids.set(palette, (id = this.ids.size));
    return id;
  }

  /** Slots of a palette, solid before see-through. What is see-through in any colourway counts as such. */
  groups(palette: Palette): readonly MaterialGroup[] {
    let known = this.groupsOf.get(palette);
    if (!known) this.groupsOf.set(palette, (known = slotsOf(palette, this.transparentIn(palette))));
    return known;
  }

  /** 1 for each byte that lets light through in the palette or in a colourway of it. */
  transparentIn(palette: Palette): Uint8Array {
    return everTransparent(palette, this.project.colourways);
  }

  /** The material of a slot. */
  of(palette: Palette, group: MaterialGroup): number {
    const way = this.names.get(palette) ?? '';
    const { slot, transparent } = group;
    const key = `${transparent ? 1 : 0} ${slot}`;
    let ofPalette = this.made.get(palette);
    if (!ofPalette) this.made.set(palette, (ofPalette = new Map()));
    let index = ofPalette.get(key);
    if (index === undefined) {
      const name = `${slot || palette.name}${transparent ? ' transparent' : ''}${way ? ` (${way})` : ''}`;
      index = this.materials.push({ name, transparent, ...this.strip(palette, way) }) - 1;
      ofPalette.set(key, index);
    }
    return index;
  }

  /** The material of a slot in each of the looks; what stands in a colourway of its own keeps that. */
  looksOf(palette: Palette, group: MaterialGroup): number[] {
    const own = this.names.has(palette);
    return this.looks.map((way) => this.of(own ? palette : recoloured(palette, way), group));
  }

  private strip(palette: Palette, way: string): Strip {
    let known = this.strips.get(palette);
    if (!known) {
      const { colour, roughnessMetal, glow, glowStrength } = paletteStrip(palette);
      const title = palette.name + (way ? ` (${way})` : '');
      const add = (name: string, png: Uint8Array): number =>
        this.pictures.push({ name: `${title} ${name}`, png: png as Uint8Array<ArrayBuffer> }) - 1;
      known = {
        colour: add('colour', colour),
        roughnessMetal: add('roughness-metal', roughnessMetal),
        glow: glow && add('glow', glow),
        glowStrength,
      };
      this.strips.set(palette, known);
    }
    return known;
  }
}

function slotsOf(palette: Palette, transparent: Uint8Array): MaterialGroup[] {
  const out = new Map<string, MaterialGroup>();
  const group = (slot: string, clear: boolean): MaterialGroup => {
    const key = `${clear ? 1 : 0} ${slot}`;
    let g = out.get(key);
    if (!g) out.set(key, (g = { slot, transparent: clear, bytes: byteTable() }));
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
