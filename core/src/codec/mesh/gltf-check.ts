import { strFromU8 } from 'fflate';
import { toByteArray } from 'base64-js';
import * as z from 'zod';
import { CodecError } from '../codec-error';
import { MOST_NODES, type NamedBytes, fileNamed } from './mesh-scene';

const place = z.int().min(0);
const count = z.int().min(0).max(60_000_000);
/** What is looked at before a file is read in full: sizes and who hangs on whom. Everything else may be as it likes. */
const called = z.looseObject({ name: z.string().optional() });
const looked = z.looseObject({
  asset: z.looseObject({ version: z.string() }),
  extensionsUsed: z.array(z.string()).max(200).optional(),
  extensionsRequired: z.array(z.string()).max(200).optional(),
  nodes: z
    .array(called.extend({ children: z.array(place).optional(), mesh: place.optional() }))
    .max(MOST_NODES)
    .optional(),
  meshes: z
    .array(called.extend({ primitives: z.array(z.looseObject({})).max(10_000) }))
    .max(MOST_NODES)
    .optional(),
  materials: z.array(called).max(10_000).optional(),
  animations: z.array(called).max(10_000).optional(),
  accessors: z
    .array(z.looseObject({ count, bufferView: place.optional(), type: z.string(), componentType: z.int() }))
    .max(500_000)
    .optional(),
  bufferViews: z
    .array(
      z.looseObject({
        buffer: place,
        byteOffset: count.optional(),
        byteLength: count,
        byteStride: z.int().min(4).max(252).optional(),
      }),
    )
    .max(500_000)
    .optional(),
  buffers: z
    .array(
      z.looseObject({
        byteLength: z
          .int()
          .min(0)
          .max(2 ** 31),
        uri: z.string().optional(),
      }),
    )
    .max(1000)
    .optional(),
  images: z
    .array(called.extend({ uri: z.string().optional() }))
    .max(10_000)
    .optional(),
});
type Looked = z.infer<typeof looked>;

/** The text of a binary file. @throws CodecError when it is damaged */
export function glbJson(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 20) throw new CodecError('codec.damaged');
  const version = view.getUint32(4, true);
  if (version !== 2) throw new CodecError('codec.gltfVersion', { version });
  const length = view.getUint32(12, true);
  if (view.getUint32(16, true) !== 0x4e4f534a || 20 + length > bytes.length) throw new CodecError('codec.damaged');
  return bytes.subarray(20, 20 + length);
}

/** Ways of packing that are known by name though they cannot be read. */
const PACKED: Readonly<Record<string, string>> = {
  KHR_draco_mesh_compression: 'Draco',
  KHR_texture_basisu: 'Basis Universal',
};

/**
 * Looks a text of glTF over before anything is made of it, and gathers what it names.
 *
 * @throws CodecError when it cannot be what it says
 */
export function checkedJson(
  text: Uint8Array,
  binary: boolean,
  others: readonly NamedBytes[],
  known: (extension: string) => boolean,
) {
  let raw: unknown;
  try {
    raw = JSON.parse(strFromU8(text));
  } catch {
    throw new CodecError('codec.damaged');
  }
  const parsed = looked.safeParse(raw);
  if (!parsed.success) {
    const version = (raw as { asset?: { version?: unknown } } | null)?.asset?.version;
    if (version !== undefined && version !== '2.0')
      throw new CodecError('codec.gltfVersion', { version: String(version).slice(0, 12) });
    const nodes = (raw as { nodes?: unknown[] } | null)?.nodes;
    if (Array.isArray(nodes) && nodes.length > MOST_NODES)
      throw new CodecError('codec.manyNodes', { most: MOST_NODES });
    throw new CodecError('codec.damaged');
  }
  const json = parsed.data;
  for (const e of json.extensionsRequired ?? [])
    if (!known(e)) throw new CodecError('codec.packed', { name: PACKED[e] ? `${PACKED[e]} (${e})` : e.slice(0, 60) });
  checkTree(json);
  checkSizes(json);
  return { json, ...gathered(json, binary, others) };
}

/** Every node hangs on one at most, and none above itself. */
function checkTree({ nodes = [] }: Looked): void {
  const parent = new Int32Array(nodes.length).fill(-1);
  nodes.forEach(({ children = [] }, i) => {
    for (const c of children) {
      if (c >= nodes.length || parent[c] !== -1) throw new CodecError('codec.damaged');
      parent[c] = i;
    }
  });
  // 1 on the way, 2 known to end at the top.
  const state = new Uint8Array(nodes.length);
  for (let i = 0; i < nodes.length; i++) {
    const way: number[] = [];
    let at = i;
    while (at !== -1 && state[at] === 0) {
      state[at] = 1;
      way.push(at);
      at = parent[at]!;
    }
    if (at !== -1 && state[at] === 1) throw new CodecError('codec.circle');
    for (const w of way) state[w] = 2;
  }
  if (nodes.length > 0) checkDepth(parent);
}
/** Readers call themselves for each level. */
const DEEPEST = 1000;
function checkDepth(parent: Int32Array): void {
  const depth = new Int32Array(parent.length);
  for (let i = 0; i < parent.length; i++) {
    let d = 0;
    for (let at = i; at !== -1 && d <= DEEPEST; at = parent[at]!) d++;
    depth[i] = d;
    if (d > DEEPEST) throw new CodecError('codec.deep', { most: DEEPEST });
  }
}

const WIDE: Readonly<Record<string, number>> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4, MAT2: 4, MAT3: 9, MAT4: 16 };
const LONG: Readonly<Record<number, number>> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };

/** Numbers that an accessor promises stand in its view, and what stands in none is not more than can be held. */
function checkSizes({ accessors = [], bufferViews = [] }: Looked): void {
  let blank = 0;
  for (const a of accessors) {
    const wide = WIDE[a.type],
      long = LONG[a.componentType];
    if (!wide || !long) throw new CodecError('codec.damaged');
    if (a.bufferView === undefined) {
      blank += a.count * wide;
      if (blank > 20_000_000) throw new CodecError('codec.bomb');
      continue;
    }
    const view = bufferViews[a.bufferView];
    if (!view) throw new CodecError('codec.damaged');
    const stride = view.byteStride ?? wide * long;
    // Views that are packed say their length packed elsewhere.
    const packed = 'extensions' in view;
    if (!packed && a.count > 0 && (a.count - 1) * stride + wide * long > view.byteLength)
      throw new CodecError('codec.damaged');
  }
}

function gathered(
  { buffers = [], images = [] }: Looked,
  binary: boolean,
  others: readonly NamedBytes[],
): { resources: Record<string, Uint8Array<ArrayBuffer>>; missing: string[] } {
  const resources: Record<string, Uint8Array<ArrayBuffer>> = {},
    missing: string[] = [];
  const take = (uri: string, needed: boolean): void => {
    const data = /^data:[^,]*;base64,/.exec(uri);
    if (data) {
      try {
        toByteArray(uri.slice(data[0].length));
      } catch {
        throw new CodecError('codec.damaged');
      }
      return;
    }
    let path = uri;
    try {
      path = decodeURIComponent(uri);
    } catch {
      // It is taken as it stands.
    }
    const file = fileNamed(path, others);
    if (file) resources[uri] = file.bytes;
    else if (needed) throw new CodecError('codec.needsFile', { name: path.slice(0, 120) });
    else {
      missing.push(path);
      resources[uri] = new Uint8Array(0);
    }
  };
  for (const b of buffers) if (b.uri !== undefined) take(b.uri, true);
  for (const i of images) if (i.uri !== undefined) take(i.uri, false);
  if (binary && Object.keys(resources).length > 0) throw new CodecError('codec.damaged');
  return { resources, missing };
}
