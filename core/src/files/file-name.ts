/** Letters of a file's name without its ending. */
const MOST = 80;
/** Names that one system keeps for itself. */
const KEPT = /^(con|prn|aux|nul|com\d|lpt\d)$/;

/** A name that is safe as a file name on every system. */
export function fileName(name: string): string {
  const safe = name
    .trim()
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .slice(0, MOST)
    .replaceAll(/^-|-$/g, '');
  return KEPT.test(safe) ? `${safe}-file` : safe || 'project';
}
