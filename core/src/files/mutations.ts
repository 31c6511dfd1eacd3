import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { seededRandom } from '../math';

// For tests: what happens to files on their way. A mutation is known by its seed.

type Random = () => number;
const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const below = (random: Random, n: number): number => Math.floor(random() * n);

/** Values that nobody expects where they stand. */
const JUNK: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  0.5,
  1e9,
  -1e300,
  2 ** 53,
  '',
  'x',
  '../../x',
  'ü'.repeat(200),
  [],
  {},
  [null],
  [1e99, 1e99, 1e99],
  { id: 'x' },
  Array.from({ length: 3000 }, () => 0),
];

function flipped(random: Random, bytes: Uint8Array, times = 1 + below(random, 8)): Uint8Array {
  const out = bytes.slice();
  for (let i = 0; i < times && out.length > 0; i++) out[below(random, out.length)]! ^= 1 + below(random, 255);
  return out;
}
const cut = (random: Random, bytes: Uint8Array): Uint8Array => bytes.slice(0, below(random, bytes.length));

/** Every list and record in a value, to choose one from. */
function containers(value: unknown, found: object[] = []): object[] {
  if (typeof value !== 'object' || value === null) return found;
  found.push(value);
  for (const v of Object.values(value)) containers(v, found);
  return found;
}

/** A copy; what holds itself by now is nothing. */
function copied(value: unknown): unknown {
  try {
    return JSON.parse(JSON.stringify(value ?? null));
  } catch {
    return null;
  }
}

/** One to three changes somewhere inside the JSON: junk, a field gone, a record twice, two values in each other's place. */
function brokenJson(random: Random, bytes: Uint8Array): Uint8Array {
  const json = JSON.parse(strFromU8(bytes)) as unknown;
  const all = containers(json).filter((c) => Object.keys(c).length > 0);
  for (let i = 1 + below(random, 3); i > 0; i--) {
    const at = pick(random, all) as Record<string, unknown>;
    const key = pick(random, Object.keys(at));
    const how = below(random, 5);
    if (how < 2) at[key] = pick(random, JUNK);
    else if (how === 2 && !Array.isArray(at)) delete at[key];
    else if (Array.isArray(at)) at.push(copied(at[0]));
    else {
      const other = pick(random, all) as Record<string, unknown>;
      const there = pick(random, Object.keys(other));
      if (at[key] !== other && other[there] !== at) [at[key], other[there]] = [other[there], at[key]];
    }
  }
  try {
    return strToU8(JSON.stringify(json));
  } catch {
    // What now holds itself cannot be written; then a flipped letter does.
    return flipped(random, bytes);
  }
}

const CRC_TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c;
});
function crc(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) c = CRC_TABLE[(c ^ b) & 255]! ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

/** A PNG with a byte of some chunk changed, and its check sum made right again, so that decoders look inside. */
function brokenPng(random: Random, bytes: Uint8Array): Uint8Array {
  const out = bytes.slice();
  const view = new DataView(out.buffer);
  const chunks: [at: number, length: number][] = [];
  for (let at = 8; at + 12 <= out.length; at += 12 + view.getUint32(at)) {
    if (at + 12 + view.getUint32(at) > out.length) break;
    chunks.push([at, view.getUint32(at)]);
  }
  if (chunks.length === 0) return flipped(random, bytes);
  const [at, length] = pick(random, chunks);
  for (let i = 1 + below(random, 4); i > 0; i--) out[at + 4 + below(random, length + 4)]! ^= 1 + below(random, 255);
  view.setUint32(at + 8 + length, crc(out.subarray(at + 4, at + 8 + length)));
  return out;
}

/** A project file as it may arrive: whole but for what mutation number `seed` did to it. */
export function mutatedProjectFile(file: Uint8Array, seed: number): Uint8Array {
  const random = seededRandom(seed);
  const how = random();
  if (how < 0.08) return cut(random, file);
  if (how < 0.16) return flipped(random, file);
  const entries: Record<string, Uint8Array> = unzipSync(file);
  const pictures = Object.keys(entries).filter((f) => f.endsWith('.png'));
  const change = (name: string, f: (r: Random, b: Uint8Array) => Uint8Array): void =>
    void (entries[name] = f(random, entries[name]!));
  if (how < 0.5) change('project.json', brokenJson);
  else if (how < 0.58) change('project.json', flipped);
  else if (how < 0.85) change(pick(random, pictures), brokenPng);
  else if (how < 0.9) change(pick(random, pictures), flipped);
  else if (how < 0.95) change(pick(random, pictures), cut);
  else entries[pick(random, pictures)] = entries[pick(random, pictures)]!;
  return zipSync(entries, { level: 0 });
}

/** Words that nobody expects in a text of numbers. */
const WORDS = ['nan', '-', '1e999', '-1e300', '999999999', '0', '../../etc/x', 'f', 'v', '\\', '', '1/2/3/4', '\u00ff'];
function brokenText(random: Random, bytes: Uint8Array): Uint8Array {
  const words = strFromU8(bytes, true).split(/( |\n)/);
  for (let i = 1 + below(random, 6); i > 0; i--) words[below(random, words.length)] = pick(random, WORDS);
  return strToU8(words.join(''), true);
}

/** A binary glTF with its JSON broken and the lengths made right again. */
function brokenGlb(random: Random, bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength),
    length = view.getUint32(12, true);
  const json = brokenJson(random, bytes.subarray(20, 20 + length)),
    padded = Math.ceil(json.length / 4) * 4,
    rest = bytes.subarray(20 + length);
  const out = new Uint8Array(20 + padded + rest.length).fill(32);
  out.set(bytes.subarray(0, 20));
  out.set(json, 20);
  out.set(rest, 20 + padded);
  const head = new DataView(out.buffer);
  head.setUint32(8, out.length, true);
  head.setUint32(12, padded, true);
  return out;
}

/** A file of any kind that comes in, whole but for what mutation number `seed` did to it. */
export function mutatedFile(name: string, file: Uint8Array<ArrayBuffer>, seed: number): Uint8Array<ArrayBuffer> {
  const random = seededRandom(seed);
  const how = random();
  const own: ((r: Random, b: Uint8Array) => Uint8Array) | null = /\.glb$/.test(name)
    ? brokenGlb
    : /\.(gltf|json)$/.test(name)
      ? brokenJson
      : /\.(obj|mtl|xyz|txt|hex)$/.test(name)
        ? brokenText
        : /\.png$/.test(name)
          ? brokenPng
          : null;
  const done = how < 0.15 ? cut(random, file) : how < 0.35 || !own ? flipped(random, file) : own(random, file);
  return done.slice() as Uint8Array<ArrayBuffer>;
}
