import { type Id, type Project, type Side, freeName, must, replaceRecord } from '../../model';
import type { Palette } from '../../palette';
import { EditError, defineEdit } from '../edit';

/** A name without spaces around it. @throws EditError when it is empty or too long */
export const checkName = (name: string): string => {
  const n = name.trim();
  if (n === '' || n.length > 120) throw new EditError('name.length');
  return n;
};

/** How names are changed, in this order. */
export interface NameRule {
  /** Another name for all of them; empty for the one that each has. */
  readonly called: string;
  readonly find: string;
  readonly replace: string;
  readonly before: string;
  readonly after: string;
  /** The number that the first of them gets behind its name; null for none. Two of one name, left and right, share a number. */
  readonly from: number | null;
}
export const SAME_NAMES: NameRule = { called: '', find: '', replace: '', before: '', after: '', from: null };

/** What is renamed: of a project's list by their ids, or swatches of a palette by their bytes. */
export type ToRename =
  | { readonly of: 'bones' | 'parts' | 'clips'; readonly ids: readonly Id[] }
  | { readonly of: 'swatches'; readonly palette: Id; readonly bytes: readonly number[] };

/** A name as it is and as it would be. */
export interface Renaming {
  readonly id: string;
  readonly side: Side;
  readonly was: string;
  readonly is: string;
  /** Whether what the rule says was taken, so that it got a number. */
  readonly apart: boolean;
}

interface Row {
  readonly id: string;
  readonly name: string;
  readonly side: Side;
}
const swatchRows = (palette: Palette): Row[] =>
  palette.swatches.map((s) => ({ id: String(s.byte), name: s.name, side: 'centre' }));
function rowsOf(
  project: Project,
  what: ToRename,
): { readonly all: readonly Row[]; readonly meant: ReadonlySet<string> } {
  if (what.of === 'swatches')
    return {
      all: swatchRows(must(project.palettes, what.palette, 'palette')),
      meant: new Set(what.bytes.map(String)),
    };
  const meant = new Set(what.ids);
  if (what.of === 'bones') return { all: project.rig.bones, meant };
  if (what.of === 'parts') return { all: project.parts, meant };
  return { all: project.clips.map((c): Row => ({ id: c.id, name: c.name, side: 'centre' })), meant };
}

/**
 * Every name that would be another one, in the order of the list. One that is taken by what stays as it is gets a number, as
 * anywhere.
 *
 * @throws EditError for a name that would be empty or too long
 */
export function renamings(project: Project, what: ToRename, rule: NameRule): readonly Renaming[] {
  const { all, meant } = rowsOf(project, what);
  const taken = new Map<Side, Set<string>>();
  const namesOn = (side: Side): Set<string> => taken.get(side) ?? taken.set(side, new Set()).get(side)!;
  for (const r of all) if (!meant.has(r.id)) namesOn(r.side).add(r.name);
  const numbers = new Map<string, number>();
  const out: Renaming[] = [];
  for (const r of all) {
    if (!meant.has(r.id)) continue;
    const base = rule.called.trim() || r.name,
      found = rule.find === '' ? base : base.replaceAll(rule.find, rule.replace);
    if (!numbers.has(r.name)) numbers.set(r.name, (rule.from ?? 0) + numbers.size);
    const number = rule.from === null ? '' : ` ${numbers.get(r.name)!}`;
    const wanted = checkName(`${rule.before}${found}${rule.after}${number}`);
    // Swatches may share a name; they are told apart by what they look like.
    const is = what.of === 'swatches' ? wanted : freeName(wanted, namesOn(r.side));
    namesOn(r.side).add(is);
    if (is !== r.name) out.push({ id: r.id, side: r.side, was: r.name, is, apart: is !== wanted });
  }
  return out;
}

/** Renames many at once: bones, parts, clips or swatches. */
export const renameManyEdit = defineEdit<{ what: ToRename; rule: NameRule }>({
  name: 'renameMany',
  label: (a) => `Rename ${a.what.of}`,
  touches: (a) => (a.what.of === 'swatches' ? [a.what.palette] : a.what.ids),
  run(project, { what, rule }) {
    const names = new Map(renamings(project, what, rule).map((r) => [r.id, r.is]));
    if (names.size === 0) return project;
    const named = <R extends { readonly id: Id; readonly name: string }>(list: readonly R[]): readonly R[] =>
      list.map((r) => (names.has(r.id) ? { ...r, name: names.get(r.id)! } : r));
    switch (what.of) {
      case 'bones':
        return { ...project, rig: { ...project.rig, bones: named(project.rig.bones) } };
      case 'parts':
        return { ...project, parts: named(project.parts) };
      case 'clips':
        return { ...project, clips: named(project.clips) };
      case 'swatches': {
        const palette = must(project.palettes, what.palette, 'palette');
        const swatches = palette.swatches.map((s) => ({ ...s, name: names.get(String(s.byte)) ?? s.name }));
        return { ...project, palettes: replaceRecord(project.palettes, { ...palette, swatches }) };
      }
    }
  },
});
