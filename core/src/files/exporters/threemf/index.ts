import { strToU8, zipSync } from 'fflate';
import * as z from 'zod';
import { bytesHex } from '../../../palette';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { inPieces } from '../../job';
import { printPlace } from '../../ship/print-place';
import { type PlacedSurface, cubeCount, placedSurfaces } from '../../ship/solid-mesh';

const options = z.strictObject({});
type Options = z.infer<typeof options>;

/** Solids to print in colour: closed, in millimetres, Z up, on the bed; a material for each colour (3MF core specification 1.3). */
export const threeMfExporter: Exporter<'solid', Options> = {
  id: '3mf',
  name: 'Print, in colour',
  noun: '3MF',
  about: '3MF: closed, in colour',
  takes: 'solid',
  extensions: ['.3mf'],
  type: 'model/3mf',
  options,
  plan: (model) => ({ counts: { bodies: model.bodies.length, cubes: cubeCount(model) }, notes: model.notes }),
  async write(model, _options, job) {
    const surfaces = await inPieces(placedSurfaces(model, printPlace(model), true), job);
    const files = {
      '[Content_Types].xml': strToU8(CONTENT_TYPES),
      '_rels/.rels': strToU8(RELATIONS),
      '3D/3dmodel.model': strToU8(modelXml(model.name, surfaces)),
    };
    return {
      files: [
        {
          name: `${fileName(model.name)}.3mf`,
          // A fixed date, so that equal projects give equal files.
          bytes: zipSync(files, { mtime: new Date(2000, 0, 1), level: 6 }) as Uint8Array<ArrayBuffer>,
        },
      ],
      notes: model.notes,
    };
  },
};

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const CONTENT_TYPES = `${HEAD}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`;
const RELATIONS = `${HEAD}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`;

const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&apos;',
};
/** Text as it may stand in XML: without what XML has no way to write. */
const escaped = (text: string): string =>
  text
    .replaceAll(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '')
    .replaceAll(/[&<>"']/g, (c) => ESCAPES[c]!);

function modelXml(name: string, surfaces: readonly PlacedSurface[]): string {
  const resources: string[] = [],
    items: string[] = [];
  surfaces.forEach((s, i) => {
    const materials = 2 * i + 1,
      object = 2 * i + 2;
    resources.push(materialsXml(materials, s), objectXml(object, materials, s));
    items.push(`<item objectid="${object}"/>`);
  });
  return `${HEAD}<model unit="millimeter" xml:lang="en-GB" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><metadata name="Title">${escaped(name)}</metadata><metadata name="Application">Sphalerite</metadata><resources>${resources.join('')}</resources><build>${items.join('')}</build></model>`;
}

/** The place of each byte that shows among the materials. */
const shown = (labels: Uint16Array): Map<number, number> =>
  new Map([...new Set(labels)].sort((a, b) => a - b).map((byte, i) => [byte, i]));

function materialsXml(id: number, { labels, body: { colours } }: PlacedSurface): string {
  const bases = [...shown(labels).keys()].map((byte) => {
    const hex = bytesHex(colours[byte * 3]!, colours[byte * 3 + 1]!, colours[byte * 3 + 2]!);
    return `<base name="${hex}" displaycolor="${hex.toUpperCase()}"/>`;
  });
  return `<basematerials id="${id}">${bases.join('')}</basematerials>`;
}

function objectXml(id: number, materials: number, { positions, triangles, labels, body }: PlacedSurface): string {
  const places = shown(labels),
    out: string[] = [];
  for (let i = 0; i < positions.length; i += 3)
    out.push(`<vertex x="${positions[i]!}" y="${positions[i + 1]!}" z="${positions[i + 2]!}"/>`);
  const vertices = out.join('');
  out.length = 0;
  for (let i = 0; i < triangles.length; i += 3)
    out.push(
      `<triangle v1="${triangles[i]!}" v2="${triangles[i + 1]!}" v3="${triangles[i + 2]!}" pid="${materials}" p1="${places.get(labels[i / 3]!)!}"/>`,
    );
  return `<object id="${id}" type="model" name="${escaped(body.name)}"><mesh><vertices>${vertices}</vertices><triangles>${out.join('')}</triangles></mesh></object>`;
}
