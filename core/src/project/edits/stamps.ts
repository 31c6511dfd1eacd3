import { type Id, type Part, find, freeName, makePart, must } from '../../model';
import type { VoxelGrid } from '../../voxel';
import { recordToBin } from '../bin';
import { EditError, defineEdit } from '../edit';

/** Keeps a piece on the project's stamp shelf. Its lattice is the one it was cut from. */
export const addStampEdit = defineEdit<{ name: string; cells: VoxelGrid; palette: Id; cell: number }>({
  name: 'addStamp',
  label: (a) => `New stamp ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    const box = a.cells.contentBox();
    if (!box) throw new EditError('stamps.empty');
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

/** Gives a stamp another name; one of several pieces as a whole. */
export const renameStampEdit = defineEdit<{ stamp: Id; name: string }>({
  name: 'renameStamp',
  label: (a) => `Rename stamp to ${a.name}`,
  touches: (a) => [a.stamp],
  run(project, a) {
    const s = must(project.stamps, a.stamp, 'stamp');
    if (a.name.trim() === '' || a.name.length > 120) throw new EditError('name.length');
    const inSet = (o: Part): boolean => o === s || (s.group !== null && o.group === s.group);
    // A stamp of several pieces bears the name of all of them.
    const others = project.stamps
      .filter((o) => !inSet(o))
      .map((o) => (s.group === null ? o.name : (o.group ?? o.name)));
    const name = freeName(a.name.trim(), others);
    return {
      ...project,
      stamps: project.stamps.map((o) => (!inSet(o) ? o : s.group === null ? { ...o, name } : { ...o, group: name })),
    };
  },
});

export const deleteStampEdit = defineEdit<{ stamp: Id }>({
  name: 'deleteStamp',
  label: (a, p) => `Delete stamp ${find(p.stamps, a.stamp)?.name ?? ''}`,
  touches: (a) => [a.stamp],
  run(project, a, ctx) {
    return recordToBin(project, 'stamp', a.stamp, ctx);
  },
});
