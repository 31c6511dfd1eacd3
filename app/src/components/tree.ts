/** A row of a `TreeView`. */
export interface TreeRow {
  readonly id: string;
  readonly name: string;
  /** What else is said of it to who cannot see it, such as its side. */
  readonly more?: string;
  /** What it is called to who cannot see it, where the name alone would mislead. */
  readonly label?: string;
  readonly children?: readonly TreeRow[];
}

/** A row that is seen: not under a folded one. */
export interface SeenRow {
  readonly row: TreeRow;
  readonly parent: string | null;
  readonly level: number;
}

/** Rows from top to bottom as they are seen. */
export function seenRows(rows: readonly TreeRow[], folded: ReadonlySet<string>): SeenRow[] {
  const out: SeenRow[] = [];
  const visit = (list: readonly TreeRow[], parent: string | null, level: number): void => {
    for (const row of list) {
      out.push({ row, parent, level });
      if (row.children && !folded.has(row.id)) visit(row.children, row.id, level + 1);
    }
  };
  visit(rows, null, 1);
  return out;
}

/** Rows whose name holds the words, with all they hang on; all when there are none. */
export function withName(rows: readonly TreeRow[], words: string): readonly TreeRow[] {
  const w = words.trim().toLowerCase();
  if (w === '') return rows;
  return rows.flatMap((r): TreeRow[] => {
    const children = withName(r.children ?? [], words);
    if (children.length > 0) return [{ ...r, children }];
    const { children: _none, ...leaf } = r;
    return `${r.name} ${r.more ?? ''}`.toLowerCase().includes(w) ? [leaf] : [];
  });
}
