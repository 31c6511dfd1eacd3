/** Whether a value is a plain list or record, such as JSON has. */
const isPlain = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && (Array.isArray(v) || Object.getPrototypeOf(v) === Object.prototype);

/**
 * `next` with all that is equal in `last` taken from there, down to its strings, so that a long history read back holds
 * every value once; `last` itself when everything is equal. What is not plain data is compared by identity.
 */
export function sharedWith<T>(last: unknown, next: T): T {
  if (last === next) return last as T;
  if (!isPlain(last) || !isPlain(next) || Array.isArray(last) !== Array.isArray(next)) return next;
  const keys = Object.keys(next);
  let same = keys.length === Object.keys(last).length;
  // Copied from the one before it has that one's shape, which engines keep much smaller than one grown field by field.
  const alike = same && keys.every((k) => k in last);
  // A copied list has just the room it needs; one that grows takes more.
  const out = (Array.isArray(next) ? [...(next as unknown[])] : alike ? { ...last } : {}) as Record<string, unknown>;
  for (const key of keys) {
    out[key] = sharedWith(last[key], next[key]);
    same &&= key in last && out[key] === last[key];
  }
  return (same ? last : out) as T;
}
