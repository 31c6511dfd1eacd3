import { TRANSFORM_IDENTITY } from '../../math';
import { CodecError } from '../codec-error';
import { Growing } from './growing';
import { MOST_TRIANGLES, type MeshScene, PLAIN_SURFACE } from './mesh-scene';
import { Scanner } from './scanner';

/** Bytes of a triangle: a normal, three corners, and two that mean nothing everywhere. */
const RECORD = 50,
  HEAD = 84;

/** Whether a file is as long as its head says: texts begin with a word that some binary ones begin with too. */
const isBinary = (bytes: Uint8Array): boolean =>
  bytes.length >= HEAD &&
  bytes.length === HEAD + RECORD * new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);

/** Whether it begins as a text of triangles. */
const isText = (bytes: Uint8Array): boolean => /^\s*solid\b/.test(String.fromCharCode(...bytes.subarray(0, 64)));

/**
 * Triangles of one body, in no unit and without colours, Z up as printers have it (STL, binary or text).
 *
 * @throws CodecError when it has no triangles, or more than can be worked with
 */
export function readStl(bytes: Uint8Array): MeshScene {
  const positions = isBinary(bytes) ? fromRecords(bytes) : isText(bytes) ? fromText(bytes) : fromCut(bytes);
  if (positions.length < 9) throw new CodecError('codec.noFaces');
  // Its Z up becomes Y up.
  for (let i = 0; i < positions.length; i += 3)
    [positions[i + 1], positions[i + 2]] = [positions[i + 2]!, -positions[i + 1]! + 0];
  const triangles = Uint32Array.from({ length: Math.floor(positions.length / 9) * 3 }, (_, i) => i);
  return {
    nodes: [
      {
        name: '',
        parent: null,
        rest: TRANSFORM_IDENTITY,
        shapes: [{ positions, triangles, uvs: null, colours: null, surface: 0 }],
        role: 'node',
      },
    ],
    surfaces: [PLAIN_SURFACE],
    pictures: [],
    clips: [],
    metres: false,
    pivots: false,
    missing: [],
  };
}

function fromRecords(bytes: Uint8Array): Float64Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength),
    count = (bytes.length - HEAD) / RECORD;
  if (count > MOST_TRIANGLES) throw new CodecError('codec.manyTriangles', { most: MOST_TRIANGLES });
  const out = new Float64Array(count * 9);
  for (let i = 0; i < count; i++)
    for (let k = 0; k < 9; k++) out[i * 9 + k] = view.getFloat32(HEAD + i * RECORD + 12 + k * 4, true);
  return out;
}

function fromText(bytes: Uint8Array): Float64Array {
  const out = new Growing(),
    scan = new Scanner(bytes);
  while (scan.line()) {
    if (scan.word() !== 'vertex') continue;
    out.push3(scan.number(), scan.number(), scan.number());
    if (out.length > MOST_TRIANGLES * 9) throw new CodecError('codec.manyTriangles', { most: MOST_TRIANGLES });
  }
  return out.all().subarray(0, Math.floor(out.length / 9) * 9);
}

/** A file that is not as long as it says is told so. */
function fromCut(bytes: Uint8Array): Float64Array {
  if (bytes.length < HEAD) throw new CodecError('codec.damaged');
  const told = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
  throw new CodecError('codec.cutShort', { told, is: Math.floor((bytes.length - HEAD) / RECORD) });
}
