import { FormatError, type Id, MissingError, type Project, checkSound, idsFrom, keepWorn } from '../model';
import { GridError } from '../voxel';
import { withoutLoose } from './blobs';
import { EditError } from './edit-error';
import { keepSeal } from './seal';
import { withTwins } from './twins';

export { EditError } from './edit-error';

/** What an edit may use beside its arguments, so that the same edit gives the same project everywhere. */
export interface EditContext {
  /** A fresh short id. */
  readonly newId: () => Id;
  /** Milliseconds since 1970, for the bin and the history. */
  readonly now: number;
}

/** A named, pure change of a project. Its arguments are plain data. */
export interface Edit<A> {
  readonly name: string;
  /** What the history calls it. */
  label(args: A, project: Project): string;
  /** Ids of the records it may change. */
  touches(args: A): readonly Id[];
  /** Whether it takes away what is hard to get back later, so that a restore point is made before it. */
  risky?(args: A): boolean;
  /** The project after; the same reference when nothing changes. */
  run(project: Project, args: A, ctx: EditContext): Project;
}

const names = new Set<string>();

export function defineEdit<A>(edit: Edit<A>): Edit<A> {
  if (names.has(edit.name)) throw new Error(`Two edits are called "${edit.name}".`);
  names.add(edit.name);
  return edit;
}

export const isRisky = <A>(edit: Edit<A>, args: A): boolean => edit.risky?.(args) ?? false;

/** An edit of several records as one step, one after the other; the first gives it its name. */
export const each = <A>(edit: Edit<A>): Edit<readonly A[]> => ({
  name: edit.name,
  label: (list, project) => {
    const first = list[0] === undefined ? edit.name : edit.label(list[0], project);
    return list.length > 1 ? `${first} and ${list.length - 1} more` : first;
  },
  touches: (list) => list.flatMap((a) => edit.touches(a)),
  risky: (list) => list.some((a) => isRisky(edit, a)),
  run: (project, list, ctx) => list.reduce((p, a) => edit.run(p, a, ctx), project),
});

/** A context whose ids follow from `seed` alone. */
export const editContext = (seed: string, now = 0): EditContext => ({ newId: idsFrom(seed), now });

/**
 * The one way to change a project. @throws EditError with a sentence when the arguments make no sense.
 */
export function apply<A>(project: Project, edit: Edit<A>, args: A, ctx: EditContext): Project {
  try {
    const after = keepSeal(project, withoutLoose(project, withTwins(project, keepWorn(edit.run(project, args, ctx)))));
    if (after !== project) checkSound(after);
    return after;
  } catch (e) {
    // Floors below know nothing of edits; their sentences are meant for people all the same.
    if (e instanceof GridError || e instanceof MissingError) throw new EditError(e.code, e.params);
    if (e instanceof FormatError)
      throw new EditError('edit.unfit', { label: edit.label(args, project), why: withoutPlace(e) });
    throw e;
  }
}

/** What cannot be stored must not come about: it would be refused when it is read again. */
const withoutPlace = (e: FormatError): string => e.message.replace(/^The project is damaged at /, '');
