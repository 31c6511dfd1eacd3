import type { VoxelGrid } from '../voxel';
import { FORMAT_VERSION } from './format-version';
import type { PartJson, ProjectJson } from './schema';
import type { Part, Project } from './types';

/** How the cells of a layer, or of the regions, are named wherever JSON and cells are stored apart. */
export const layerKey = (partId: string, layerId: string): string => `${partId}/${layerId}`;

/** A part without its cells. */
export const partToJson = (part: Part): PartJson => ({
  ...(part as unknown as PartJson),
  layers: part.layers.map(({ id, name, hidden, locked }) => ({ id, name, hidden, locked })),
  regions: part.regions && { id: part.regions.id, list: [...part.regions.list] },
});

/** The project without cells, ready for JSON. */
export function projectToJson(project: Project): ProjectJson {
  const { bin, parts, stamps, ...rest } = project as unknown as ProjectJson & Project;
  return {
    ...(rest as unknown as ProjectJson),
    formatVersion: FORMAT_VERSION,
    parts: (parts as unknown as Part[]).map(partToJson),
    stamps: (stamps as unknown as Part[]).map(partToJson),
    bin: (bin as unknown as Project['bin']).map((b) =>
      b.kind === 'part' ? { ...b, part: partToJson(b.part) } : b,
    ) as unknown as ProjectJson['bin'],
  };
}

/** Every part, stamps and those in the bin included. */
export const allParts = (project: Project): Part[] => [
  ...project.parts,
  ...project.stamps,
  ...project.bin.flatMap((b) => (b.kind === 'part' ? [b.part] : [])),
];

/** A part and the cells of each of its layers. */
export const partFromJson = (p: PartJson, gridOf: (part: PartJson, layerId: string) => VoxelGrid): Part => ({
  ...p,
  layers: p.layers.map((l) => ({ ...l, grid: gridOf(p, l.id) })),
  regions: p.regions && { ...p.regions, grid: gridOf(p, p.regions.id) },
});

/** The project from checked JSON and a way to get the cells of each layer. */
export function projectFromJson(json: ProjectJson, gridOf: (part: PartJson, layerId: string) => VoxelGrid): Project {
  const { formatVersion: _version, ...rest } = json;
  const part = (p: PartJson): Part => partFromJson(p, gridOf);
  return {
    ...rest,
    parts: json.parts.map(part),
    stamps: json.stamps.map(part),
    bin: json.bin.map((b) => (b.kind === 'part' ? { ...b, part: part(b.part) } : b)),
  };
}
