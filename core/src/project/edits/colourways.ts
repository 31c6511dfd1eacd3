import { type Id, type Project, freeName, moveRecord, must, replaceRecord } from '../../model';
import type { Colourway } from '../../palette';
import { recordToBin } from '../bin';
import { EditError, defineEdit } from '../edit';

const nameOf = (p: Project, id: Id): string => p.colourways.find((c) => c.id === id)?.name ?? 'colourway';
const change = (project: Project, id: Id, f: (way: Colourway) => Colourway): Project => {
  const colourways = replaceRecord(project.colourways, f(must(project.colourways, id, 'colourway')));
  return colourways === project.colourways ? project : { ...project, colourways };
};

/** A new variant: with the palette's own look, or beginning as another one stands. */
export const addColourwayEdit = defineEdit<{ name: string; from?: Id | null }>({
  name: 'addColourway',
  label: (a) => `New colourway ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    if (a.name.trim() === '' || a.name.length > 120) throw new EditError('name.length');
    const changes = a.from ? must(project.colourways, a.from, 'colourway').changes : [];
    return {
      ...project,
      colourways: [
        ...project.colourways,
        {
          id: ctx.newId(),
          name: freeName(
            a.name.trim(),
            project.colourways.map((c) => c.name),
          ),
          changes,
        },
      ],
    };
  },
});

export const renameColourwayEdit = defineEdit<{ colourway: Id; name: string }>({
  name: 'renameColourway',
  label: (a) => `Rename colourway to ${a.name}`,
  touches: (a) => [a.colourway],
  run: (project, a) =>
    change(project, a.colourway, (way) => {
      if (a.name.trim() === '' || a.name.length > 120) throw new EditError('name.length');
      const name = freeName(
        a.name.trim(),
        project.colourways.filter((c) => c !== way).map((c) => c.name),
      );
      return name === way.name ? way : { ...way, name };
    }),
});

export const moveColourwayEdit = defineEdit<{ colourway: Id; index: number }>({
  name: 'moveColourway',
  label: (a, p) => `Reorder ${nameOf(p, a.colourway)}`,
  touches: (a) => [a.colourway],
  run(project, a) {
    const colourways = moveRecord(project.colourways, a.colourway, a.index);
    return colourways === project.colourways ? project : { ...project, colourways };
  },
});

/** Takes a swatch back to the palette's own look in a colourway. */
export const resetLookEdit = defineEdit<{ colourway: Id; palette: Id; byte: number }>({
  name: 'resetLook',
  label: (a, p) => `Palette’s own look in ${nameOf(p, a.colourway)}`,
  touches: (a) => [a.colourway],
  run: (project, a) =>
    change(project, a.colourway, (way) => {
      const changes = way.changes.filter((c) => c.palette !== a.palette || c.byte !== a.byte);
      return changes.length === way.changes.length ? way : { ...way, changes };
    }),
});

export const deleteColourwayEdit = defineEdit<{ colourway: Id }>({
  name: 'deleteColourway',
  label: (a, p) => `Delete colourway ${nameOf(p, a.colourway)}`,
  touches: (a) => [a.colourway],
  run(project, a, ctx) {
    return recordToBin(project, 'colourway', a.colourway, ctx);
  },
});
