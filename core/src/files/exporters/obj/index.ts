import { strToU8 } from 'fflate';
import * as z from 'zod';
import { type Vec3, add, rotate, transformDirection, transformPoint } from '../../../math';
import type { Exporter, WrittenFile } from '../../exporter';
import { fileName } from '../../file-name';
import { type Note, note } from '../../notes';
import { restWorlds } from '../../ship/join-meshes';
import { type ShipCollider, type ShipModel, countsOf } from '../../ship/ship-model';
import { distinct } from '../../ship/ship-names';

/** An object for each part as it stands at rest, with materials that read small pictures of the palettes (Wavefront OBJ and MTL). */
export const objExporter: Exporter<'model', object> = {
  id: 'obj',
  name: 'Plain mesh',
  noun: 'OBJ with its materials',
  about: 'OBJ + MTL + PNG',
  takes: 'model',
  extensions: ['.obj', '.mtl', '.png'],
  type: 'model/obj',
  options: z.strictObject({}),
  plan: (model) => ({ counts: { ...countsOf(model), clips: 0 }, notes: [...model.notes, ...lost(model)] }),
  async write(model) {
    const stem = fileName(model.name);
    const pictures = pictureNames(model, stem);
    const text = (name: string, of: string): WrittenFile => ({ name, bytes: strToU8(of) as Uint8Array<ArrayBuffer> });
    return {
      files: [
        text(`${stem}.obj`, objText(model, stem)),
        text(`${stem}.mtl`, mtlText(model, pictures)),
        // In a file of their own: readers of OBJ show all they find.
        ...(model.colliders.length > 0 ? [text(`${stem}-colliders.obj`, colliderText(model))] : []),
        ...[...usedMaterials(model)]
          .flatMap((m) => [model.materials[m]!.colour, ...pictureOf(model.materials[m]!.glow)])
          .filter((p, i, all) => all.indexOf(p) === i)
          .map((p): WrittenFile => ({ name: pictures[p]!, bytes: model.pictures[p]!.bytes })),
      ],
      notes: [...model.notes, ...lost(model)],
    };
  },
};

const lost = ({ clips }: ShipModel): Note[] => (clips.length > 0 ? [note('clipsLost', '', { n: clips.length })] : []);

const pictureOf = (picture: number | null): number[] => (picture === null ? [] : [picture]);
/** Materials that something shows: those of colourways are not in this kind of file. */
const usedMaterials = ({ meshes }: ShipModel): Set<number> =>
  new Set(meshes.flatMap((m) => m.pieces.map((p) => p.material)).sort((a, b) => a - b));

/** A word as OBJ and MTL have it: no blanks, which end a name there. */
const word = (name: string): string => name.trim().replaceAll(/\s+/g, '_') || 'unnamed';

const pictureNames = ({ pictures }: ShipModel, stem: string): string[] =>
  distinct(pictures.map((p) => `${stem}-${fileName(p.name)}`)).map(
    (n, i) => `${n}.${pictures[i]!.type.split('/')[1]!.replace('jpeg', 'jpg')}`,
  );
const materialNames = ({ materials }: ShipModel): string[] => distinct(materials.map((m) => word(m.name)));

/** Numbers to a tenth of a millimetre and a ten-thousandth of a picture, without trailing zeros. */
const figure = (v: number): string => String(Math.round(v * 1e5) / 1e5 + 0);

function objText(model: ShipModel, stem: string): string {
  const lines = [`# Sphalerite`, `mtllib ${stem}.mtl`, `g ${word(model.name)}`];
  const materials = materialNames(model),
    // Nodes that show nothing take no name away.
    shown = model.nodes.filter((n) => n.mesh !== null),
    objects = new Map(distinct(shown.map((n) => word(n.name))).map((name, i) => [shown[i], name]));
  const worlds = restWorlds(model.nodes);
  let first = 1;
  model.nodes.forEach((node, n) => {
    const { s, mesh } = node;
    const world = worlds[n]!;
    // What is not worn has no size.
    if (mesh === null || s.some((v) => v === 0)) return;
    lines.push(`o ${objects.get(node)!}`);
    for (const { shape, material } of model.meshes[mesh]!.pieces) {
      const { positions, normals, uv, indices } = model.shapes[shape]!;
      const count = positions.length / 3;
      for (let i = 0; i < count; i++) {
        const p = transformPoint(world, [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!]);
        lines.push(`v ${p.map(figure).join(' ')}`);
      }
      for (let i = 0; i < count; i++) lines.push(`vt ${figure(uv[i * 2]!)} ${figure(1 - uv[i * 2 + 1]!)}`);
      for (let i = 0; normals && i < count; i++) {
        const d = transformDirection(world, [normals[i * 3]!, normals[i * 3 + 1]!, normals[i * 3 + 2]!]);
        const l = Math.hypot(...d) || 1;
        lines.push(`vn ${d.map((v) => figure(v / l)).join(' ')}`);
      }
      lines.push(`usemtl ${materials[material]!}`);
      for (let i = 0; i < indices.length; i += 3)
        lines.push(
          `f ${[0, 1, 2].map((k) => ((v) => (normals ? `${v}/${v}/${v}` : `${v}/${v}`))(first + indices[i + k]!)).join(' ')}`,
        );
      first += count;
    }
  });
  return `${lines.join('\n')}\n`;
}

/** Colliders as objects, where they stand at rest. */
function colliderText(model: ShipModel): string {
  const worlds = restWorlds(model.nodes),
    lines = ['# Sphalerite: colliders'];
  let first = 1;
  const names = distinct(model.colliders.map((c) => word(c.name)));
  model.colliders.forEach(({ node, shape }, n) => {
    const { positions, indices } = hull(shape);
    lines.push(`o ${names[n]!}`);
    for (let i = 0; i < positions.length; i += 3) {
      const p = transformPoint(worlds[node]!, [positions[i]!, positions[i + 1]!, positions[i + 2]!]);
      lines.push(`v ${p.map(figure).join(' ')}`);
    }
    for (let i = 0; i < indices.length; i += 3)
      lines.push(`f ${[0, 1, 2].map((k) => first + indices[i + k]!).join(' ')}`);
    first += positions.length / 3;
  });
  return `${lines.join('\n')}\n`;
}

/** The six sides of a box, by its corners: bit 0 is the higher x, bit 1 y, bit 2 z. */
const SIDES = [
  [1, 3, 7, 5],
  [0, 4, 6, 2],
  [2, 6, 7, 3],
  [0, 1, 5, 4],
  [4, 5, 7, 6],
  [0, 2, 3, 1],
];
function hull(shape: ShipCollider['shape']): { positions: ArrayLike<number>; indices: ArrayLike<number> } {
  if (shape.kind !== 'box') return shape;
  const at = (c: number): Vec3 =>
    add(shape.middle, rotate(shape.turn, shape.size.map((v, a) => ((c >> a) & 1 ? 0.5 : -0.5) * v) as unknown as Vec3));
  return {
    positions: Array.from({ length: 8 }, (_, c) => at(c)).flat(),
    indices: SIDES.flatMap(([a, b, c, d]) => [a!, b!, c!, a!, c!, d!]),
  };
}

function mtlText(model: ShipModel, pictures: readonly string[]): string {
  const names = materialNames(model);
  return [...usedMaterials(model)]
    .map((i) => {
      const { colour, glow, transparent } = model.materials[i]!;
      return [
        `newmtl ${names[i]!}`,
        'Kd 1 1 1',
        'Ks 0 0 0',
        `map_Kd ${pictures[colour]!}`,
        ...(glow === null ? [] : ['Ke 1 1 1', `map_Ke ${pictures[glow]!}`]),
        ...(transparent ? [`map_d ${pictures[colour]!}`] : []),
        '',
      ].join('\n');
    })
    .join('\n');
}
