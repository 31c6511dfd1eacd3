import { type Id, type Project, type Side, freeName } from '../../model';
import { defineEdit } from '../edit';

/** What has a side. */
export type Sided = 'bones' | 'parts' | 'attachments';

interface SidedRecord {
  readonly id: Id;
  readonly name: string;
  readonly side: Side;
}

/** The list with those of `ids` on a side; a name that is taken there gets a number. */
function onSide<R extends SidedRecord>(list: readonly R[], ids: ReadonlySet<Id>, side: Side): readonly R[] {
  const taken = list.filter((r) => r.side === side).map((r) => r.name);
  let any = false;
  const out = list.map((r) => {
    if (!ids.has(r.id) || r.side === side) return r;
    any = true;
    const name = freeName(r.name, taken);
    taken.push(name);
    return { ...r, side, name };
  });
  return any ? out : list;
}

/** Says of which side of the character bones, parts or attachment points are. Nothing moves by it. */
export const setSideEdit = defineEdit<{ of: Sided; ids: readonly Id[]; side: Side }>({
  name: 'setSide',
  label: (a) => `${a.side === 'centre' ? 'Centre' : a.side === 'left' ? 'Left' : 'Right'} side`,
  touches: (a) => a.ids,
  run(project, a): Project {
    const ids = new Set(a.ids);
    if (a.of === 'parts') {
      const parts = onSide(project.parts, ids, a.side);
      return parts === project.parts ? project : { ...project, parts };
    }
    const list: readonly SidedRecord[] = project.rig[a.of],
      next = onSide(list, ids, a.side);
    return next === list ? project : { ...project, rig: { ...project.rig, [a.of]: next } };
  },
});
