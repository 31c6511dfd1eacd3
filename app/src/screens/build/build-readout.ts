import { composite, helperCount } from '@sphalerite/core/model';
import { useSession } from '../../stores/session';
import type { BuildParts } from './build-parts';
import { useBuild } from './build-state';
import { drops } from './measure-lines';
import { useSelection } from './selection/selection-state';
import { useShipCounts } from '../../stores/ship-counts';

type Figure = [name: string, value: string];
const many = (n: number): string => n.toLocaleString('en');

/** The line of live figures in Build. */
export function buildReadout({ hand }: BuildParts): { left: Figure[]; right: string } {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const { part } = session;
  const { counts } = useShipCounts();
  const shown = session.shown?.parts.find((o) => o.id === part?.id);
  if (!part || !shown) return { left: [], right: '' };
  const left: Figure[] = [];
  if (hand.underHand.value) left.push(['colour', hand.underHand.value]);
  if (hand.hoverCell.value)
    left.push(['above the floor', drops(hand.hoverCell.value, build.limit ?? part.bounds).text]);
  if (selection.active && selection.box)
    left.push(['selection', `${selection.box.size.join(' × ')} = ${many(selection.count)}`]);
  const helpers = session.palette ? helperCount(shown, session.palette) : 0;
  left.push(['part', part.bounds.size.join(' × ')]);
  left.push(['cubes', many(composite(shown).count - helpers) + (helpers ? ` + ${helpers} helpers` : '')]);
  if (counts && counts.faces > 0) left.push(['faces', `${many(counts.faces)} → ${many(counts.triangles)} tris`]);
  return { left, right: '' };
}
