import { strFromU8 } from 'fflate';
import {
  CodecError,
  type Points,
  type MeshScene,
  type Pixels,
  isGlb,
  isPly,
  looksLikePoints,
  readGltf,
  readObj,
  readPly,
  readStl,
  readXyz,
} from '../../../codec';
import { type MeshOptions, meshOptions, meshSteps, nodeWorlds, pointsSteps } from '../../../intake';
import { type Mat4, mulMat } from '../../../math';
import type { Palette } from '../../../palette';
import { decodedPicture, looksLikePicture } from '../../decoded-picture';
import { projectOfBodies } from '../../bodies';
import type { Find, GivenFile, ImportJob, Imported, Importer, Place } from '../../importer';
import { inPieces } from '../../job';
import { projectOfMesh } from '../../mesh/mesh-project';
import { type Note, note } from '../../notes';
import { titleOf } from '../picture';

const MESHES = /\.(glb|gltf|obj|stl|ply|xyz)$/i,
  BESIDE = /\.(mtl|bin)$/i;
const isZip = (head: Uint8Array): boolean => head[0] === 0x50 && head[1] === 0x4b;
const isMesh = (head: Uint8Array, name: string): boolean =>
  isGlb(head) || isPly(head) || (MESHES.test(name) && !isZip(head)) || (/\.txt$/i.test(name) && looksLikePoints(head));

/** A mesh of another program as parts, with its bones and clips. */
export const meshImporter: Importer<MeshOptions> = {
  id: 'mesh',
  does: 'Make cubes of the mesh',
  extensions: ['.glb', '.gltf', '.obj', '.mtl', '.stl', '.ply', '.bin', '.xyz', '.txt'],
  needs: 'project',
  options: meshOptions,
  accepts: (head, name) => isMesh(head, name) || (BESIDE.test(name) && !isZip(head)) || looksLikePicture(head),
  inspect: meshes,
  joins({ title, files }, more) {
    const [first, ...known] = files;
    const all = meshes([first!, ...more, ...known.filter((k) => !more.some((m) => last(m.name) === last(k.name)))]);
    const find = all.find((f) => f.files[0] === first);
    return find && more.every((m) => find.files.includes(m)) ? { title, files: find.files } : null;
  },
  async run({ title, files }, options, job, place) {
    const scene = await sceneOf(files, job);
    if (!('nodes' in scene)) return ofPoints(scene, titleOf(title), options, job, place);
    const decoded = await picturesOf(scene, job);
    const ours = place?.palette ?? null;
    const body = await inPieces(meshSteps(scene, decoded.pictures, options, ours, place?.cube ?? CUBE), job);
    const name = titleOf(title);
    const palette: Palette = body.ours ? ours! : { id: 'colours', name, swatches: body.swatches };
    const { cubes, shift } = body.scaling;
    const scaled: Mat4 = [cubes, 0, 0, 0, 0, cubes, 0, 0, 0, 0, cubes, 0, ...shift, 1];
    const worlds = nodeWorlds(body.scene.nodes).map((w) => mulMat(scaled, w));
    const bones = options.bones && options.parts === 'nodes';
    const { clips } = options;
    const project = projectOfMesh(name, palette, { scene: body.scene, parts: body.parts, worlds, cubes, bones, clips });
    const high = body.extents.hi[1] - body.extents.lo[1];
    return {
      brought: {
        kind: 'parts',
        project,
        facts: {
          triangles: [body.triangles],
          size: [high * cubes, high, scene.metres ? 1 : 0],
          colours: [body.colours, body.swatches.length],
          holes: [body.holes],
          bones: [project.rig.bones.length, scene.nodes.length],
          clips: [project.clips.length, scene.clips.length],
          pivots: [scene.pivots ? 1 : 0],
          exact: body.exact === null ? [] : [body.exact],
          cage: [...body.extents.lo, ...body.extents.hi],
        },
      },
      notes: [
        ...scene.missing.map((m) => note('fileMissing', m)),
        ...decoded.notes,
        ...(body.lost > 0 ? [note('trianglesLost', '', { n: body.lost })] : []),
        ...(options.colours === 'palette' && !ours ? [note('noPalette')] : []),
      ],
    };
  },
};

/** A part of points, as large as they are. */
async function ofPoints(
  points: Points,
  name: string,
  options: MeshOptions,
  job: ImportJob,
  place: Place | null,
): Promise<Imported> {
  const ours = place?.palette ?? null;
  const body = await inPieces(pointsSteps(points, options, ours), job);
  const palette: Palette = body.ours ? ours! : { id: 'colours', name, swatches: body.swatches };
  return {
    brought: {
      kind: 'parts',
      project: projectOfBodies(name, [{ name, grid: body.grid }], palette),
      facts: {
        points: [body.count],
        size: [body.grid.bounds.size[1], 0, 0],
        colours: [body.colours, body.swatches.length],
        exact: body.exact === null ? [] : [body.exact],
        pivots: [0],
      },
    },
    notes: [],
  };
}

/** Metres along a cube where there is no project yet that says so. */
const CUBE = 0.05;

/** Each mesh with the files that it names, and with those that these name. */
function meshes(files: readonly GivenFile[]): Find[] {
  return files
    .filter((f) => isMesh(f.bytes.subarray(0, 64), f.name))
    .map((f) => {
      const others = files.filter((o) => o !== f);
      const own = new Set([f]);
      for (const at of own)
        for (const named of namedIn(at)) for (const o of others) if (last(o.name) === last(named)) own.add(o);
      return { title: f.name, files: [...own] };
    });
}
const last = (path: string): string => path.split(/[\\/]/).at(-1)!.trim().toLowerCase();

/** As much of a text is looked through for names. */
const LOOKED = 4 * 1024 * 1024;
/** What a file says that it needs beside it. */
export function namedIn({ name, bytes }: GivenFile): string[] {
  const text = /\.(obj|mtl|gltf)$/i.test(name) ? strFromU8(bytes.subarray(0, LOOKED), true) : '';
  const all = (form: RegExp): string[] => [...text.matchAll(form)].map((m) => m[1]!.trim());
  if (/\.obj$/i.test(name)) return all(/^\s*mtllib\s+(.+)$/gm).flatMap((l) => [l, ...l.split(/\s+/)]);
  if (/\.mtl$/i.test(name))
    return all(/^\s*(?:map_\w+|bump|norm|disp)\s+(.+)$/gim).flatMap((l) => [l, l.split(/\s+/).at(-1)!]);
  if (/\.gltf$/i.test(name))
    return all(/"uri"\s*:\s*"([^"]{1,400})"/g).map((u) => (u.startsWith('data:') ? '' : decoded(u)));
  return [];
}
function decoded(uri: string): string {
  try {
    return decodeURIComponent(uri);
  } catch {
    return uri;
  }
}

const scenes = new WeakMap<
  GivenFile,
  { readonly with: readonly GivenFile[]; readonly scene: Promise<MeshScene | Points> }
>();
/** Read once for as long as the files are held. */
function sceneOf(files: readonly GivenFile[], job: ImportJob): Promise<MeshScene | Points> {
  const first = files[0]!;
  const known = scenes.get(first);
  if (known && known.with.length === files.length && files.every((f) => known.with.includes(f))) return known.scene;
  const scene = job.breathe().then(() => read(first, files.slice(1)));
  scenes.set(first, { with: files, scene });
  return scene;
}

async function read(file: GivenFile, others: readonly GivenFile[]): Promise<MeshScene | Points> {
  const head = file.bytes.subarray(0, 64);
  if (isGlb(head) || /\.gl(b|tf)$/i.test(file.name)) return readGltf(file.bytes, others);
  if (isPly(head)) {
    const content = readPly(file.bytes);
    return content.kind === 'points' ? content.points : content.scene;
  }
  if (/\.(xyz|txt)$/i.test(file.name)) return readXyz(file.bytes);
  return /\.stl$/i.test(file.name) ? readStl(file.bytes) : readObj(file.bytes, others);
}

/** Pictures that surfaces show, decoded; those that cannot be are told and left out. */
async function picturesOf(
  scene: MeshScene,
  job: ImportJob,
): Promise<{ readonly pictures: (Pixels | null)[]; readonly notes: Note[] }> {
  const shown = new Set(
    scene.surfaces.flatMap((s) => [s.picture, s.glowPicture, s.roughMetalPicture].map((t) => t?.picture ?? -1)),
  );
  const notes: Note[] = [],
    pictures: (Pixels | null)[] = [];
  for (const [i, p] of scene.pictures.entries()) {
    let pixels: Pixels | null = null;
    if (shown.has(i) && p.bytes && p.bytes.length > 0)
      try {
        pixels = await decodedPicture(fileOf(p), job);
      } catch (e) {
        if (!(e instanceof CodecError)) throw e;
        notes.push(note('pictureUnread', p.name));
      }
    pictures.push(pixels);
  }
  return { pictures, notes };
}

/** A picture of a scene as a file that is held, so that it is decoded once. */
const held = new WeakMap<object, GivenFile>();
function fileOf(p: { readonly name: string; readonly bytes: Uint8Array<ArrayBuffer> | null }): GivenFile {
  let f = held.get(p);
  if (!f) held.set(p, (f = { name: p.name, bytes: p.bytes! }));
  return f;
}
