import {
  type Id,
  type Placement,
  type Project,
  type Repeat,
  type Scene,
  copiesIn,
  find,
  lookUp,
} from '@sphalerite/core/model';

/** What a placement is called: by its own name, or by what it shows. */
export function placementName(project: Project, { name, shows }: Pick<Placement, 'name' | 'shows'>): string {
  if (name !== '') return name;
  switch (shows.kind) {
    case 'group':
      return 'Group';
    case 'part':
      return lookUp(project.parts, shows.part)?.name ?? 'a part in the bin';
    case 'rig':
      return project.name;
    case 'cube':
      return 'Terrain cube';
    case 'asset':
      return find(project.assets, shows.asset)?.name ?? 'a missing project';
  }
}

const KINDS = { line: 'row', ring: 'ring', path: 'path', scatter: 'scatter' } as const;
/** As "scatter 12": how something is repeated, and how often. */
export const repeatText = (r: Repeat): string => (r.kind === 'mirror' ? 'mirrored' : `${KINDS[r.kind]} ${copiesIn(r)}`);

/** The repeat of each placement that has one. */
export const repeatsOf = (scene: Scene): ReadonlyMap<Id, Repeat> => new Map(scene.repeats.map((r) => [r.placement, r]));
