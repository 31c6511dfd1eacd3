import { say } from '../../words';
import { type BinItem, type Id, type Layer, type Part, type Project, must, replaceRecord } from '../../model';
import {
  type Palette,
  type Swatch,
  type SwatchLook,
  LOOKS,
  appended,
  isHex,
  makeSwatch,
  freeByte,
  nearestBytes,
  withLook,
} from '../../palette';
import { BYTE_VALUES, byteCounts, type CellSet, mapBytes, sameBytes } from '../../voxel';
import { partInBin } from '../bin';
import { EditError, defineEdit } from '../edit';
import { checkOpen } from './strokes';

const changePalette = (project: Project, id: Id, change: (palette: Palette) => Palette): Project => {
  const palettes = replaceRecord(project.palettes, change(must(project.palettes, id, 'palette')));
  return palettes === project.palettes ? project : { ...project, palettes };
};
const swatchName = (p: Project, palette: Id, byte: number): string =>
  must(p.palettes, palette, 'palette').swatches.find((s) => s.byte === byte)?.name || `swatch ${byte}`;
const checkSwatch = (s: Partial<Swatch>): void => {
  if (s.colour !== undefined && !isHex(s.colour)) throw new EditError('joints.colour', { colour: s.colour });
  for (const k of ['roughness', 'metalness', 'opacity'] as const)
    if (s[k] !== undefined && !(s[k] >= 0 && s[k] <= 1))
      throw new EditError('palettes.unit', { what: k[0]!.toUpperCase() + k.slice(1) });
  if (s.emissive !== undefined && !(s.emissive >= 0 && s.emissive <= 1000)) throw new EditError('palettes.glow');
};
const has = (palette: Palette, byte: number): boolean => palette.swatches.some((s) => s.byte === byte);

/** Swaps a whole palette's swatches; bytes are identities and stay with their swatch. */
export const setSwatchesEdit = defineEdit<{ palette: Id; name?: string; swatches: readonly Swatch[] }>({
  name: 'setSwatches',
  label: () => 'Change the palette',
  touches: (a) => [a.palette],
  run: (project, a) =>
    changePalette(project, a.palette, (p) => ({ ...p, name: a.name ?? p.name, swatches: a.swatches })),
});

export const renamePaletteEdit = defineEdit<{ palette: Id; name: string }>({
  name: 'renamePalette',
  label: (a) => `Rename the palette to ${a.name}`,
  touches: (a) => [a.palette],
  run: (project, a) =>
    changePalette(project, a.palette, (p) => {
      if (a.name.trim() === '' || a.name.length > 120) throw new EditError('name.length');
      return a.name.trim() === p.name ? p : { ...p, name: a.name.trim() };
    }),
});

export const addSwatchEdit = defineEdit<{ palette: Id; name: string; colour: string; more?: Partial<Swatch> }>({
  name: 'addSwatch',
  label: (a) => `New swatch ${a.name}`,
  touches: (a) => [a.palette],
  run: (project, a) =>
    changePalette(project, a.palette, (palette) => {
      const byte = freeByte(palette);
      if (byte === 0) throw new EditError('palettes.full', { palette: palette.name });
      checkSwatch({ ...a.more, colour: a.colour });
      return { ...palette, swatches: [...palette.swatches, makeSwatch(byte, a.name, a.colour, a.more)] };
    }),
});

/** Appends swatches, such as a ramp or another palette; those it has already are united with their equals. */
export const appendSwatchesEdit = defineEdit<{
  palette: Id;
  swatches: readonly Omit<Swatch, 'byte'>[];
  title?: string;
}>({
  name: 'appendSwatches',
  label: (a) => a.title ?? say('label.appendSwatches', { n: a.swatches.length }),
  touches: (a) => [a.palette],
  run: (project, a) =>
    changePalette(project, a.palette, (palette) => {
      a.swatches.forEach(checkSwatch);
      const out = appended(palette, a.swatches);
      if (out.left > 0)
        throw new EditError('palettes.room', {
          palette: palette.name,
          n: 255 - palette.swatches.length,
          left: out.left,
        });
      return out.swatches.length === palette.swatches.length ? palette : { ...palette, swatches: out.swatches };
    }),
});

/** Changes a swatch; with a colourway, how it looks in that one alone. */
export const editSwatchEdit = defineEdit<{
  palette: Id;
  byte: number;
  change: Partial<Omit<Swatch, 'byte'>>;
  colourway?: Id | null;
}>({
  name: 'editSwatch',
  label: (a, p) =>
    `Change swatch ${swatchName(p, a.palette, a.byte)}${a.colourway ? ` in ${must(p.colourways, a.colourway, 'colourway').name}` : ''}`,
  touches: (a) => [a.colourway ?? a.palette],
  run(project, a) {
    checkSwatch(a.change);
    const palette = must(project.palettes, a.palette, 'palette');
    const i = palette.swatches.findIndex((s) => s.byte === a.byte);
    if (i < 0) throw new EditError('palettes.noSwatch', { palette: palette.name, byte: a.byte });
    const looks = Object.fromEntries(
      Object.entries(a.change).filter(([k]) => a.colourway && (LOOKS as readonly string[]).includes(k)),
    ) as Partial<SwatchLook>;
    const rest = Object.fromEntries(Object.entries(a.change).filter(([k]) => !(k in looks)));
    let out = project;
    if (Object.keys(looks).length > 0) {
      const way = must(project.colourways, a.colourway!, 'colourway');
      const next = withLook(way, palette, a.byte, looks);
      if (JSON.stringify(next) !== JSON.stringify(way))
        out = { ...out, colourways: replaceRecord(out.colourways, next) };
    }
    // Name, slot and meaning are the same in all colourways.
    const next = { ...palette.swatches[i]!, ...rest };
    return JSON.stringify(next) === JSON.stringify(palette.swatches[i])
      ? out
      : changePalette(out, a.palette, (p) => ({ ...p, swatches: p.swatches.with(i, next) }));
  },
});

/** Another order of the swatches; bytes and cubes stay as they are. */
export const orderSwatchesEdit = defineEdit<{ palette: Id; bytes: readonly number[] }>({
  name: 'orderSwatches',
  label: () => 'Sort the palette',
  touches: (a) => [a.palette],
  run: (project, a) =>
    changePalette(project, a.palette, (palette) => {
      const place = new Map(a.bytes.map((b, i) => [b, i]));
      const swatches = [...palette.swatches].sort((p, q) => (place.get(p.byte) ?? 999) - (place.get(q.byte) ?? 999));
      return swatches.every((s, i) => s === palette.swatches[i]) ? palette : { ...palette, swatches };
    }),
});

/** The layers of all parts that use a palette through a change of their cells; stamps and the bin included when `all`. */
function mapLayers(project: Project, palette: Id, all: boolean, change: (layer: Layer, part: Part) => Layer): Project {
  const part = (p: Part): Part => {
    if (p.palette !== palette) return p;
    const layers = p.layers.map((l) => change(l, p));
    return layers.every((l, i) => l === p.layers[i]) ? p : { ...p, layers };
  };
  const each = (list: readonly Part[]): readonly Part[] => {
    const out = list.map(part);
    return out.every((p, i) => p === list[i]) ? list : out;
  };
  const parts = each(project.parts);
  if (!all) return parts === project.parts ? project : { ...project, parts };
  return {
    ...project,
    parts,
    stamps: each(project.stamps),
    bin: project.bin.map((b) => {
      const of = partInBin(b);
      return of ? ({ ...b, record: part(of) } as BinItem) : b;
    }),
  };
}
const mapped = (layer: Layer, table: Uint8Array, within: CellSet | null = null): Layer => {
  const grid = mapBytes(layer.grid, table, within);
  return grid === layer.grid ? layer : { ...layer, grid };
};

/**
 * Turns cubes of some swatches into another: of a layer (or a selection in it), or of every layer of the project.
 * Locked layers keep theirs.
 */
export const replaceSwatchEdit = defineEdit<{
  palette: Id;
  from: readonly number[];
  to: number;
  part?: Id;
  layer?: Id;
  within?: CellSet | null;
}>({
  name: 'replaceSwatch',
  label: (a, p) =>
    `Replace ${a.from.map((b) => swatchName(p, a.palette, b)).join(', ')} by ${swatchName(p, a.palette, a.to)}`,
  touches: (a) => (a.part ? [a.part] : []),
  run(project, a) {
    const palette = must(project.palettes, a.palette, 'palette');
    if (!has(palette, a.to)) throw new EditError('palettes.noSwatch', { palette: palette.name, byte: a.to });
    const table = sameBytes();
    for (const b of a.from) table[b] = a.to;
    if (a.layer !== undefined) {
      const part = must(project.parts, a.part!, 'part');
      checkOpen(part, must(part.layers, a.layer, 'layer'));
    }
    return mapLayers(project, a.palette, false, (l, p) =>
      (a.part !== undefined && p.id !== a.part) || (a.layer !== undefined && l.id !== a.layer) || l.locked
        ? l
        : mapped(l, table, a.within ?? null),
    );
  },
});

/**
 * Deletes swatches. Their cubes go to another swatch, or are removed; everywhere, locked layers, stamps and the bin
 * included, so that no cube is left without a colour.
 */
export const deleteSwatchesEdit = defineEdit<{ palette: Id; bytes: readonly number[]; moveTo: number | null }>({
  name: 'deleteSwatches',
  label: (a, p) =>
    `Delete ${a.bytes.length === 1 ? `swatch ${swatchName(p, a.palette, a.bytes[0]!)}` : `${a.bytes.length} swatches`}${a.moveTo === null ? '' : `, cubes to ${swatchName(p, a.palette, a.moveTo)}`}`,
  touches: (a) => [a.palette],
  run(project, a) {
    const palette = must(project.palettes, a.palette, 'palette');
    const gone = new Set(a.bytes.filter((b) => has(palette, b)));
    if (gone.size === 0) return project;
    if (gone.size === palette.swatches.length) throw new EditError('palettes.last', { palette: palette.name });
    if (a.moveTo !== null && (gone.has(a.moveTo) || !has(palette, a.moveTo))) throw new EditError('palettes.moveTo');
    const table = sameBytes();
    for (const b of gone) table[b] = a.moveTo ?? 0;
    const emptied = mapLayers(project, a.palette, true, (l) => mapped(l, table));
    return {
      ...changePalette(emptied, a.palette, (p) => ({ ...p, swatches: p.swatches.filter((s) => !gone.has(s.byte)) })),
      colourways: withoutChanges(project, (c) => c.palette === a.palette && gone.has(c.byte)),
    };
  },
});

/** Colourways without some of their changes; those that lose none stay the same. */
function withoutChanges(
  project: Project,
  lost: (c: Project['colourways'][number]['changes'][number]) => boolean,
): Project['colourways'] {
  return project.colourways.map((w) =>
    w.changes.some(lost) ? { ...w, changes: w.changes.filter((c) => !lost(c)) } : w,
  );
}

/**
 * Puts other swatches in a palette's place; every cube goes to the nearest by OKLab. Looks that colourways gave to the
 * old swatches go with them.
 */
export const replacePaletteEdit = defineEdit<{ palette: Id; name?: string; swatches: readonly Swatch[] }>({
  name: 'replacePalette',
  risky: () => true,
  label: (a) => `Replace the palette by ${a.name ?? 'another'} (${a.swatches.length})`,
  touches: (a) => [a.palette],
  run(project, a) {
    const palette = must(project.palettes, a.palette, 'palette');
    if (a.swatches.length === 0 || a.swatches.length > 255) throw new EditError('palettes.size');
    if (new Set(a.swatches.map((s) => s.byte)).size !== a.swatches.length) throw new EditError('palettes.twice');
    a.swatches.forEach(checkSwatch);
    const near = nearestBytes(palette.swatches, a.swatches);
    // Bytes that the old palette did not list stay as they are.
    const table = sameBytes();
    for (const s of palette.swatches) table[s.byte] = near[s.byte]!;
    return {
      ...changePalette(
        mapLayers(project, a.palette, true, (l) => mapped(l, table)),
        a.palette,
        (p) => ({ ...p, name: a.name ?? p.name, swatches: a.swatches }),
      ),
      colourways: withoutChanges(project, (c) => c.palette === a.palette),
    };
  },
});

/** Who uses a swatch: cubes of every layer, hidden ones included. */
export interface SwatchUse {
  readonly part: Part;
  /** Cubes by byte. */
  readonly counts: Uint32Array;
}

/** Cubes by byte of one part, all layers. */
export const partUse = (part: Part): Uint32Array =>
  part.layers.reduce<Uint32Array>((out, l) => byteCounts(l.grid, out), new Uint32Array(BYTE_VALUES));

/** Cubes by byte of every part with that palette, and of all together; stamps and the bin under `kept`. */
export function paletteUse(
  project: Project,
  palette: Id,
): { readonly parts: readonly SwatchUse[]; readonly total: Uint32Array; readonly kept: Uint32Array } {
  const total = new Uint32Array(BYTE_VALUES),
    kept = new Uint32Array(BYTE_VALUES);
  const add = (into: Uint32Array, counts: Uint32Array): void => counts.forEach((n, b) => (into[b]! += n));
  const parts = project.parts.filter((p) => p.palette === palette).map((part) => ({ part, counts: partUse(part) }));
  for (const { counts } of parts) add(total, counts);
  for (const p of project.stamps) if (p.palette === palette) add(kept, partUse(p));
  for (const b of project.bin) {
    const p = partInBin(b);
    if (p?.palette === palette) add(kept, partUse(p));
  }
  return { parts, total, kept };
}
