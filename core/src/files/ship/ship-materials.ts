import { type Blob, type Project, find } from '../../model';
import { Atlas, type AtlasPlace, type PackedAtlas } from '../../mesh';
import { tilePicture } from '../../paint';
import { type Colourway, type Palette, everTransparent, recoloured } from '../../palette';
import { FileError } from '../file-error';
import { encodePng } from '../png';
import type { ShipMaterial, ShipPicture } from './ship-model';
import type { ShipProfile } from './ship-profile';
import { STRIP, glowStrength, glows, swatchPictures } from './swatch-pictures';

/** What pictures of a material are made of: bytes of a palette, in rows from the top. */
interface Texels {
  readonly width: number;
  readonly height: number;
  readonly bytes: Uint8Array;
}

/** Slots by their surfaces, with how much of each colour they show. */
interface Shown {
  readonly bytes: Float64Array;
}

/**
 * Materials and pictures of a model: one material for each slot, solid or see-through, in each colourway. Their pictures are drawn when
 * all that they show is known.
 */
export class ShipMaterials {
  readonly materials: ShipMaterial[] = [];
  private readonly drawing: (() => ShipPicture)[] = [];
  private readonly made = new Map<Palette, Map<string, number>>();
  private readonly ids = new Map<Palette, number>();
  private readonly sets = new Map<Palette, Map<string, Pick<ShipMaterial, 'colour' | 'roughnessMetal' | 'glow'>>>();
  private readonly names = new Map<Palette, string>();
  /** The palette that a variant was made of. */
  private readonly bases = new Map<Palette, Palette>();
  private readonly atlases = new Map<Palette, { readonly atlas: Atlas; packed: PackedAtlas | null }>();
  private readonly shown = new Map<Palette, Map<string, Shown>>();

  /** @param looks – colourways that everything can be seen in */
  constructor(
    private readonly project: Project,
    readonly looks: readonly Colourway[],
    private readonly profile: ShipProfile,
  ) {
    this.nameLooks(project);
  }

  /** Palettes as they are in a project's colourways are called after those. */
  nameLooks({ palettes, colourways }: Project): void {
    for (const way of colourways)
      for (const p of palettes) {
        const other = recoloured(p, way);
        if (other === p) continue;
        this.names.set(other, way.name);
        this.bases.set(other, p);
      }
  }

  /** A number for a palette, the same each time. */
  idOf(palette: Palette): number {
    let id = this.ids.get(palette);
    if (id === undefined) this.ids.set(palette, (id = this.ids.size));
    return id;
  }
  /** The palette that this is a colourway of; itself where it is none. */
  baseOf(palette: Palette): Palette {
    return this.bases.get(palette) ?? palette;
  }

  /** 1 for each byte that lets light through in the palette or in a colourway of it. */
  transparentIn(palette: Palette): Uint8Array {
    return everTransparent(palette, this.project.colourways);
  }

  /** Takes an image into the atlas of a palette. */
  place(palette: Palette, wide: number, high: number, bytes: Uint8Array): AtlasPlace {
    return this.atlasOf(palette).atlas.add(wide, high, bytes);
  }
  /** The atlas of a palette, packed; nothing can be added after. @throws FileError when it would be larger than wished */
  packed(palette: Palette): PackedAtlas {
    const mine = this.atlasOf(palette);
    if (mine.packed) return mine.packed;
    mine.packed = mine.atlas.packed(this.profile.picture);
    if (!mine.packed) throw new FileError('ship.atlasTooLarge', { most: this.profile.picture.most });
    return mine.packed;
  }
  private atlasOf(palette: Palette): { readonly atlas: Atlas; packed: PackedAtlas | null } {
    const base = this.baseOf(palette);
    let mine = this.atlases.get(base);
    if (!mine) this.atlases.set(base, (mine = { atlas: new Atlas(), packed: null }));
    return mine;
  }

  /** Counts faces of a slot by their colours: the commonest one stands for it where it has no picture. */
  show(palette: Palette, slot: string, transparent: boolean, byte: number, faces: number): void {
    this.shownOf(palette, slot, transparent).bytes[byte]! += faces;
  }
  private shownOf(palette: Palette, slot: string, transparent: boolean): Shown {
    const base = this.baseOf(palette);
    let ofBase = this.shown.get(base);
    if (!ofBase) this.shown.set(base, (ofBase = new Map()));
    const key = `${transparent} ${slot}`;
    let mine = ofBase.get(key);
    if (!mine) ofBase.set(key, (mine = { bytes: new Float64Array(256) }));
    return mine;
  }

  /** The material of a slot. */
  of(palette: Palette, slot: string, transparent: boolean): number {
    const way = this.names.get(palette) ?? '';
    const key = `${transparent ? 1 : 0} ${slot}`;
    let ofPalette = this.made.get(palette);
    if (!ofPalette) this.made.set(palette, (ofPalette = new Map()));
    let index = ofPalette.get(key);
    if (index === undefined) {
      index =
        this.materials.push({
          name: `${slot || palette.name}${transparent ? ' transparent' : ''}${way ? ` (${way})` : ''}`,
          slot,
          transparent: transparent ? this.profile.looks.seeThrough : null,
          repeats: this.profile.picture.layout === 'tiling',
          ...this.pictures(palette, slot, transparent, way),
          glowStrength: glows(palette) ? glowStrength(palette) : 1,
        }) - 1;
      ofPalette.set(key, index);
    }
    return index;
  }

  /** The material of a slot in each of the looks; what stands in a colourway of its own keeps that. */
  looksOf(palette: Palette, slot: string, transparent: boolean): number[] {
    const own = this.names.has(palette);
    return this.looks.map((way) => this.of(own ? palette : recoloured(palette, way), slot, transparent));
  }

  private pictures(
    palette: Palette,
    slot: string,
    transparent: boolean,
    way: string,
  ): Pick<ShipMaterial, 'colour' | 'roughnessMetal' | 'glow'> {
    const tiling = this.profile.picture.layout === 'tiling';
    const key = tiling ? `${transparent} ${slot}` : '';
    let ofPalette = this.sets.get(palette);
    if (!ofPalette) this.sets.set(palette, (ofPalette = new Map()));
    let known = ofPalette.get(key);
    if (!known) {
      const title = (tiling && slot ? slot : palette.name) + (way ? ` (${way})` : '');
      let drawn: ReturnType<typeof swatchPictures> | null = null;
      const texels = (): Texels => this.texelsOf(palette, slot, transparent);
      const add = (name: string, of: 'colour' | 'roughnessMetal' | 'glow'): number =>
        this.drawing.push(() => {
          const { width, height, bytes } = texels();
          return {
            name: `${title} ${name}`,
            type: 'image/png',
            // Counting needs none of them drawn.
            get bytes() {
              drawn ??= swatchPictures(palette, width, height, bytes);
              return drawn[of] as Uint8Array<ArrayBuffer>;
            },
            width,
            height,
          };
        }) - 1;
      const tile = tiling ? this.tileOf(slot) : null;
      known = {
        colour: tile ? this.drawing.push(() => ({ ...tile, name: `${title} colour` })) - 1 : add('colour', 'colour'),
        roughnessMetal: add('roughness-metal', 'roughnessMetal'),
        glow: glows(palette) && !tile ? add('glow', 'glow') : null,
      };
      ofPalette.set(key, known);
    }
    return known;
  }

  private texelsOf(palette: Palette, slot: string, transparent: boolean): Texels {
    switch (this.profile.picture.layout) {
      case 'strip':
        return { width: STRIP.length, height: 1, bytes: STRIP };
      case 'atlas': {
        const { width, height, texels } = this.packed(palette);
        return { width, height, bytes: texels };
      }
      case 'tiling':
        return { width: 1, height: 1, bytes: Uint8Array.of(commonest(this.shownOf(palette, slot, transparent).bytes)) };
    }
  }

  /** The picture that repeats on a slot, where one was chosen. */
  private tileOf(slot: string): Omit<ShipPicture, 'name'> | null {
    const tile = this.profile.tiles.find((t) => t.slot === slot);
    const blob: Blob | undefined = tile?.blob ? find(this.project.blobs, tile.blob) : undefined;
    if (blob && blob.type !== 'application/octet-stream')
      return { type: blob.type, bytes: blob.bytes, width: 0, height: 0 };
    const ready = tile?.picture ? tilePicture(tile.picture) : null;
    if (!ready) return null;
    const { width, height, rgba } = ready;
    return { type: 'image/png', bytes: encodePng(width, height, rgba) as Uint8Array<ArrayBuffer>, width, height };
  }

  /** Every picture; each is drawn when its bytes are asked for. */
  drawn(): ShipPicture[] {
    return this.drawing.map((draw) => draw());
  }
}

/** The byte of which there is most; of several the first. */
export const commonest = (counts: ArrayLike<number>): number => {
  let best = 0;
  for (let b = 1; b < counts.length; b++) if (counts[b]! > (counts[best] ?? 0)) best = b;
  return best;
};
