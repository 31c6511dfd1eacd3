import { say } from '../words';
import type { Placement, Project } from './kinds';
import { find, lookUp } from './records';

/** What a placement is called: by its own name, or by what it shows. */
export function placementName(project: Project, { name, shows }: Pick<Placement, 'name' | 'shows'>): string {
  if (name !== '') return name;
  switch (shows.kind) {
    case 'group':
      return say('placement.group');
    case 'part':
      return lookUp(project.parts, shows.part)?.name ?? say('placement.partGone');
    case 'rig':
      return project.name;
    case 'cube':
      return say('placement.cube');
    case 'asset':
      return find(project.assets, shows.asset)?.name ?? say('placement.assetGone');
  }
}
