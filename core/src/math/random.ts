/** A seeded stream of numbers in [0, 1), the same on every machine. */
export type Random = () => number;

/** 32-bit mixing of an integer (the finaliser of MurmurHash3). */
export function hash32(x: number): number {
  x = Math.imul(x ^ (x >>> 16), 0x85ebca6b);
  x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35);
  return (x ^ (x >>> 16)) >>> 0;
}
/** Where a hash by {@link fnv1a} begins. */
export const FNV_START = 0x811c9dc5;
/** One step of a 32-bit FNV-1a hash over whole numbers below 65,536; `>>> 0` at the end gives the hash. */
export const fnv1a = (hash: number, value: number): number => Math.imul(hash ^ value, 0x01000193);
/** A number for a text, for seeding by name. */
export function hashText(text: string): number {
  let h = FNV_START;
  for (let i = 0; i < text.length; i++) h = fnv1a(h, text.charCodeAt(i));
  return h >>> 0;
}
/** Marsaglia's xorshift32 behind a mixed seed: fast, small, even enough for art and sampling. */
export function seededRandom(seed: number): Random {
  let s = hash32(seed + 0x9e3779b9) || 1;
  return () => {
    s ^= s << 13;
    s ^= s >>> 17;
    s ^= s << 5;
    return (s >>> 0) / 4294967296;
  };
}
