import type { SceneFinding } from '@sphalerite/core/scene';
import { say } from '../../words';

/** What was found in a scene, in words. @param nameOf – what a placement is called */
export function findingText(f: SceneFinding, nameOf: (placement: string) => string): string {
  const first = nameOf(f.placements[0]!);
  switch (f.code) {
    case 'alike':
      return say('scene.alike', { n: f.placements.length, name: first });
    case 'alikeGroups':
      return say('scene.alikeGroups', { n: f.placements.length, name: first });
    case 'otherCubes':
      return say('scene.otherCubes', { n: f.placements.length, name: first, edge: f.edge });
    case 'floats':
      return say('scene.floats', { name: first, by: f.by });
    case 'within':
      return say('scene.within', { n: f.cubes, name: nameOf(f.placements[1]), other: first });
  }
}
