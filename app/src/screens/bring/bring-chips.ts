import { IconCube, IconLink, IconRoute, IconScissors } from '@tabler/icons-vue';
import type { Chip } from '../../shell/screen';
import { useBringing } from './bring-state';
import type { joining } from './joining';
import type { pathPlaces } from './path-places';

const figure = (n: number): string => n.toLocaleString('en');
const holes = (n: number): string => (n === 1 ? 'a hole in it was closed' : `${figure(n)} holes in it were closed`);
/** What several parts are. */
const manyOf = (facts: Readonly<Record<string, readonly number[]>>): string =>
  facts['triangles']
    ? 'each node is a part, under its name'
    : facts['sprites']
      ? 'each sprite is a part'
      : 'each piece is a part, shrunk to fit';

/** What was found in what comes, and what the hand can do about it in the view. */
export function bringChips(join: ReturnType<typeof joining>, path: ReturnType<typeof pathPlaces>): Chip[] {
  const bringing = useBringing();

  const m = bringing.made;
  if (bringing.trouble) return [{ text: bringing.trouble, tone: 'red' }];
  if (!m) return [];
  const out: Chip[] = [];
  if (m.facts['blocks']?.[0] === 1)
    out.push({ text: 'enlarged pixels found: a cube a pixel', tone: 'green', icon: IconScissors });
  const [was, is] = m.facts['colours'] ?? [];
  if (m.facts['exact']?.length)
    out.push({ text: 'made of cubes: it comes back cube for cube', tone: 'green', icon: IconCube });
  if (m.facts['holes']?.[0]) out.push({ text: holes(m.facts['holes'][0]), tone: 'resin' });
  if (path.works.value)
    out.push({
      text: `${path.count.value} places: drag one, or pull the rope anywhere`,
      tone: 'resin',
      icon: IconRoute,
      run: path.longer,
      does: 'longer',
    });
  if (m.project.parts.length > 1)
    out.push({
      text: manyOf(m.facts),
      tone: 'green',
      icon: IconScissors,
    });
  if (join.works.value)
    out.push({
      text: join.hovered.value || 'drag a piece onto another to join them',
      tone: 'resin',
      icon: IconLink,
    });
  if (was !== undefined && is !== undefined && was > 0)
    out.push({
      text:
        was === is
          ? is === 1
            ? 'its one colour'
            : `its ${figure(is)} colours`
          : `${figure(is)} of ${figure(was)} colours`,
      tone: 'resin',
    });
  return out;
}
