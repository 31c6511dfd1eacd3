import { type Id, type Part, type Project, freeName, groupsOfParts, lying, must } from '../../model';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';
import { checkName } from './names';

/** Puts parts before another one, or last, in a group of that name or in none. */
export const placePartsEdit = defineEdit<{ parts: readonly Id[]; before: Id | null; group: string | null }>({
  name: 'placeParts',
  label: (a) => say('label.placeParts', { n: a.parts.length }),
  touches: (a) => a.parts,
  run(project, { parts, before, group }) {
    const moved = chosen(project, parts).map((p) => inGroup(p, group === null ? null : checkName(group)));
    const going = new Set(parts);
    // What it would stand before may go along: then before whatever stays after that.
    const list = together(project.parts);
    const from = before === null ? list.length : list.indexOf(must(list, before, 'part'));
    const next = list.slice(from).find((p) => !going.has(p.id));
    const rest = list.filter((p) => !going.has(p.id));
    const all = rest.toSpliced(next ? rest.indexOf(next) : rest.length, 0, ...moved);
    return all.every((p, i) => p === project.parts[i]) ? project : { ...project, parts: all };
  },
});

/** Parts lie together under a name from then on, where the first of them lay. */
export const groupPartsEdit = defineEdit<{ parts: readonly Id[]; name: string }>({
  name: 'groupParts',
  label: (a) => say('label.groupParts', { n: a.parts.length }),
  touches: (a) => a.parts,
  run(project, { parts, name }, ctx) {
    const going = new Set(parts),
      list = together(project.parts),
      stay = list.slice(list.findIndex((p) => going.has(p.id))).find((p) => !going.has(p.id));
    const group = freeName(checkName(name), groupsOfParts(project.parts));
    return placePartsEdit.run(project, { parts, before: stay?.id ?? null, group }, ctx);
  },
});

/** Another name for a group; that of another group joins the two. */
export const renamePartGroupEdit = defineEdit<{ group: string; name: string }>({
  name: 'renamePartGroup',
  label: (a) => say('label.renamePartGroup', a),
  touches: () => [],
  run: (project, { group, name }) => regrouped(project, group, checkName(name)),
});

/** The parts of a group lie by themselves. */
export const ungroupPartsEdit = defineEdit<{ group: string }>({
  name: 'ungroupParts',
  label: (a) => say('label.ungroupParts', a),
  touches: () => [],
  run: (project, { group }) => regrouped(project, group, null),
});

function regrouped(project: Project, group: string, to: string | null): Project {
  if (!groupsOfParts(project.parts).includes(group)) throw new EditError('groups.none', { group });
  return to === group
    ? project
    : { ...project, parts: project.parts.map((p) => (p.group === group ? inGroup(p, to) : p)) };
}

/** Those of a group one behind the other. */
const together = (parts: readonly Part[]): Part[] => lying(parts).flatMap((l) => l.parts);
const inGroup = (part: Part, group: string | null): Part => (part.group === group ? part : { ...part, group });

/** In the order in which they lie. @throws EditError when there is none */
function chosen(project: Project, parts: readonly Id[]): Part[] {
  for (const id of parts) must(project.parts, id, 'part');
  if (parts.length === 0) throw new EditError('groups.nothing');
  return together(project.parts).filter((p) => parts.includes(p.id));
}
