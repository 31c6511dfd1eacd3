import { type Id, type Part, type Reference, find, freeName, makePart, must, replaceRecord } from '../../model';
import type { VoxelGrid } from '../../voxel';
import { EditError, defineEdit } from '../edit';

/** Keeps a piece on the project's stamp shelf. Its lattice is the one it was cut from. */
export const addStampEdit = defineEdit<{ name: string; cells: VoxelGrid; palette: Id; cell: number }>({
  name: 'addStamp',
  label: (a) => `New stamp ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    const box = a.cells.contentBox();
    if (!box) throw new EditError('There are no cubes to make a stamp of. Select some first.');
    must(project.palettes, a.palette, 'palette');
    const made = makePart(
      ctx.newId(),
      ctx.newId(),
      freeName(
        a.name,
        project.stamps.map((s) => s.name),
      ),
      a.palette,
      box,
      { cell: a.cell },
    );
    const stamp: Part = { ...made, layers: [{ ...made.layers[0]!, grid: a.cells.withBounds(box) }] };
    return { ...project, stamps: [...project.stamps, stamp] };
  },
});

export const renameStampEdit = defineEdit<{ stamp: Id; name: string }>({
  name: 'renameStamp',
  label: (a) => `Rename stamp to ${a.name}`,
  touches: (a) => [a.stamp],
  run(project, a) {
    const s = must(project.stamps, a.stamp, 'stamp');
    if (a.name.trim() === '' || a.name.length > 120) throw new EditError('A name needs 1 to 120 characters.');
    return {
      ...project,
      stamps: replaceRecord(project.stamps, {
        ...s,
        name: freeName(
          a.name.trim(),
          project.stamps.filter((o) => o !== s).map((o) => o.name),
        ),
      }),
    };
  },
});

/** To the bin, as a part. */
export const deleteStampEdit = defineEdit<{ stamp: Id }>({
  name: 'deleteStamp',
  label: (a, p) => `Delete stamp ${find(p.stamps, a.stamp)?.name ?? ''}`,
  touches: (a) => [a.stamp],
  run(project, a, ctx) {
    const s = must(project.stamps, a.stamp, 'stamp');
    return {
      ...project,
      stamps: project.stamps.filter((o) => o !== s),
      bin: [...project.bin, { id: ctx.newId(), kind: 'part', at: ctx.now, part: s, mounts: [], references: [] }],
    };
  },
});

/** A picture to work from. */
export const addReferenceEdit = defineEdit<Omit<Reference, 'id' | 'hidden' | 'opacity'> & { opacity?: number }>({
  name: 'addReference',
  label: (a) => `Reference picture ${a.name}`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    must(project.parts, a.part, 'part');
    if (!/^data:image\/(png|jpeg|webp);base64,/.test(a.image))
      throw new EditError(`"${a.name}" is not a PNG, JPEG or WebP picture.`);
    if (a.image.length > 12_000_000)
      throw new EditError(`"${a.name}" is too large to keep in the project; 9 MB is the most. Make it smaller first.`);
    return {
      ...project,
      references: [
        ...project.references,
        {
          id: ctx.newId(),
          name: a.name,
          part: a.part,
          plane: a.plane,
          image: a.image,
          at: a.at,
          size: a.size,
          opacity: a.opacity ?? 0.5,
          hidden: false,
        },
      ],
    };
  },
});

export const setReferenceEdit = defineEdit<{
  reference: Id;
  change: Partial<Omit<Reference, 'id' | 'image' | 'part'>>;
}>({
  name: 'setReference',
  label: (a, p) => `Change reference picture ${find(p.references, a.reference)?.name ?? ''}`,
  touches: (a) => [a.reference],
  run(project, a) {
    const r = must(project.references, a.reference, 'reference picture');
    const next = { ...r, ...a.change };
    if (!next.size.every((s) => s > 0) || !(next.opacity >= 0 && next.opacity <= 1))
      throw new EditError('A reference picture needs a size above zero and an opacity from 0 to 1.');
    return JSON.stringify({ ...next, image: '' }) === JSON.stringify({ ...r, image: '' })
      ? project
      : { ...project, references: replaceRecord(project.references, next) };
  },
});

export const deleteReferenceEdit = defineEdit<{ reference: Id }>({
  name: 'deleteReference',
  label: (a, p) => `Remove reference picture ${find(p.references, a.reference)?.name ?? ''}`,
  touches: (a) => [a.reference],
  run: (project, a) => ({ ...project, references: project.references.filter((r) => r.id !== a.reference) }),
});
