import { type Id, LISTED_KINDS, type NamedRecord, type Project, recordsOf } from '../model';
import type { Palette } from '../palette';
import { type RecordName, freeAmong, paletteAlike } from './bringing';

/** What can be taken out of another project one by one, in the order in which it is shown. */
export const PIECE_KINDS = ['part', 'clip', 'scene', 'palette', 'stamp', 'delivery profile'] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];

/** A thing of another project that can come here, and what becomes of its name. */
export interface Piece extends RecordName {
  readonly kind: PieceKind;
  readonly record: NamedRecord & { readonly name: string };
  /**
   * `as`: the name that it gets here when its own is taken. `shared`: the same palette is here, so none comes. `over`: the part here that
   * it can take the place of.
   */
  readonly clash: { readonly as?: string; readonly shared?: true; readonly over?: Id };
}

/** Everything of a project that can be taken over, with what clashes here. */
export const takeablePieces = (project: Project, source: Project): Piece[] =>
  PIECE_KINDS.flatMap((name) => {
    const kind = LISTED_KINDS.find((k) => k.name === name)!;
    const here = recordsOf(project, kind);
    return recordsOf(source, kind).map((r): Piece => {
      const record = r as Piece['record'];
      return { kind: name, id: record.id, record, clash: clashOf(project, name, record, here) };
    });
  });

function clashOf(
  project: Project,
  kind: PieceKind,
  record: Piece['record'],
  here: readonly NamedRecord[],
): Piece['clash'] {
  if (kind === 'palette' && paletteAlike(project, record as unknown as Palette)) return { shared: true };
  const as = freeAmong(here, record);
  if (as === record.name) return {};
  const over = kind === 'part' ? here.find((o) => o.name === record.name && o.side === record.side) : undefined;
  return { as, ...(over ? { over: over.id } : {}) };
}
