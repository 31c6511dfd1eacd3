import { type Id, type Project, must, replaceRecord } from '../../model';
import { type Palette, type Swatch, freeByte, isHex, makeSwatch } from '../../palette';
import { EditError, defineEdit } from '../edit';

const changePalette = (project: Project, id: Id, change: (palette: Palette) => Palette): Project => {
  const palettes = replaceRecord(project.palettes, change(must(project.palettes, id, 'palette')));
  return palettes === project.palettes ? project : { ...project, palettes };
};

/** Swaps a whole palette's swatches; bytes are identities and stay with their swatch. */
export const setSwatchesEdit = defineEdit<{ palette: Id; name?: string; swatches: readonly Swatch[] }>({
  name: 'setSwatches',
  label: () => 'Change the palette',
  touches: (a) => [a.palette],
  run: (project, a) => changePalette(project, a.palette, (p) => ({ ...p, name: a.name ?? p.name, swatches: a.swatches })),
});

export const addSwatchEdit = defineEdit<{ palette: Id; name: string; colour: string; more?: Partial<Swatch> }>({
  name: 'addSwatch',
  label: (a) => `New swatch ${a.name}`,
  touches: (a) => [a.palette],
  run: (project, a) => changePalette(project, a.palette, (palette) => {
    const byte = freeByte(palette);
    if (byte === 0) throw new EditError(`"${palette.name}" is full: a palette holds 255 swatches. Drop the unused ones first.`);
    if (!isHex(a.colour)) throw new EditError(`"${a.colour}" is not a colour; write it as #rrggbb.`);
    return { ...palette, swatches: [...palette.swatches, makeSwatch(byte, a.name, a.colour, a.more)] };
  }),
});

export const editSwatchEdit = defineEdit<{ palette: Id; byte: number; change: Partial<Omit<Swatch, 'byte'>> }>({
  name: 'editSwatch',
  label: (a, p) => `Change swatch ${must(p.palettes, a.palette, 'palette').swatches.find((s) => s.byte === a.byte)?.name ?? a.byte}`,
  touches: (a) => [a.palette],
  run: (project, a) => changePalette(project, a.palette, (palette) => {
    const i = palette.swatches.findIndex((s) => s.byte === a.byte);
    if (i < 0) throw new EditError(`"${palette.name}" has no swatch ${a.byte}.`);
    if (a.change.colour !== undefined && !isHex(a.change.colour)) throw new EditError(`"${a.change.colour}" is not a colour; write it as #rrggbb.`);
    const next = { ...palette.swatches[i]!, ...a.change };
    return JSON.stringify(next) === JSON.stringify(palette.swatches[i]) ? palette : { ...palette, swatches: palette.swatches.with(i, next) };
  }),
});
