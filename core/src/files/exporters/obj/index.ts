import { strToU8 } from 'fflate';
import * as z from 'zod';
import { type Mat4, matrixOf, mulMat, transformDirection, transformPoint } from '../../../math';
import type { Exporter, WrittenFile } from '../../exporter';
import { fileName } from '../../file-name';
import { type Note, note } from '../../notes';
import { meshOptions } from '../../ship/mesh-options';
import type { ShipMeshing, ShipModel } from '../../ship/ship-model';

/** An object for each part as it stands at rest, with materials that read small pictures of the palettes (Wavefront OBJ and MTL). */
export const objExporter: Exporter<'model', ShipMeshing> = {
  id: 'obj',
  name: 'Plain mesh',
  noun: 'OBJ with its materials',
  about: 'OBJ + MTL + PNG',
  takes: 'model',
  extensions: ['.obj', '.mtl', '.png'],
  type: 'model/obj',
  options: z.strictObject(meshOptions),
  plan: (model) => ({ counts: { ...model.counts, clips: 0, colliders: 0 }, notes: [...model.notes, ...lost(model)] }),
  async write(model) {
    const stem = fileName(model.name);
    const pictures = pictureNames(model, stem);
    const text = (name: string, of: string): WrittenFile => ({ name, bytes: strToU8(of) as Uint8Array<ArrayBuffer> });
    return {
      files: [
        text(`${stem}.obj`, objText(model, stem)),
        text(`${stem}.mtl`, mtlText(model, pictures)),
        ...[...usedMaterials(model)]
          .flatMap((m) => [model.materials[m]!.colour, ...pictureOf(model.materials[m]!.glow)])
          .filter((p, i, all) => all.indexOf(p) === i)
          .map((p): WrittenFile => ({ name: pictures[p]!, bytes: model.pictures[p]!.png })),
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

/** Names that are all different. */
function distinct(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${name}_${n}`;
    taken.add(free);
    return free;
  });
}
const pictureNames = ({ pictures }: ShipModel, stem: string): string[] =>
  distinct(pictures.map((p) => `${stem}-${fileName(p.name)}`)).map((n) => `${n}.png`);
const materialNames = ({ materials }: ShipModel): string[] => distinct(materials.map((m) => word(m.name)));

/** Numbers to a tenth of a millimetre and a ten-thousandth of a picture, without trailing zeros. */
const figure = (v: number): string => String(Math.round(v * 1e5) / 1e5 + 0);

function objText(model: ShipModel, stem: string): string {
  const lines = [`# Sphalerite`, `mtllib ${stem}.mtl`, `g ${word(model.name)}`];
  const materials = materialNames(model),
    objects = distinct(model.nodes.map((n) => word(n.name)));
  const worlds: Mat4[] = [];
  let first = 1;
  model.nodes.forEach(({ parent, t, q, s, mesh }, n) => {
    const local = matrixOf({ t, q, s });
    const world = parent === null ? local : mulMat(worlds[parent]!, local);
    worlds.push(world);
    // What is not worn has no size.
    if (mesh === null || s.some((v) => v === 0)) return;
    lines.push(`o ${objects[n]!}`);
    for (const { shape, material } of model.meshes[mesh]!.pieces) {
      const { positions, normals, uv, indices } = model.shapes[shape]!;
      const count = positions.length / 3;
      for (let i = 0; i < count; i++) {
        const p = transformPoint(world, [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!]);
        lines.push(`v ${p.map(figure).join(' ')}`);
      }
      for (let i = 0; i < count; i++) lines.push(`vt ${figure(uv[i * 2]!)} ${figure(1 - uv[i * 2 + 1]!)}`);
      for (let i = 0; i < count; i++) {
        const d = transformDirection(world, [normals[i * 3]!, normals[i * 3 + 1]!, normals[i * 3 + 2]!]);
        const l = Math.hypot(...d) || 1;
        lines.push(`vn ${d.map((v) => figure(v / l)).join(' ')}`);
      }
      lines.push(`usemtl ${materials[material]!}`);
      for (let i = 0; i < indices.length; i += 3)
        lines.push(`f ${[0, 1, 2].map((k) => ((v) => `${v}/${v}/${v}`)(first + indices[i + k]!)).join(' ')}`);
      first += count;
    }
  });
  return `${lines.join('\n')}\n`;
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
