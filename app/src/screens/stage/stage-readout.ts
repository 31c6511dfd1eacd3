import { findIn, placementName } from '@sphalerite/core/model';
import type { DrawList } from '@sphalerite/core/scene';
import type { ScreenControl } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { copyInHand } from './copy-in-hand';
import { extentOfList } from './placing';

/** How wide and deep all that stands there is, in metres. */
function sizeText(list: DrawList): string {
  const e = extentOfList(list),
    m = useSession().project?.metresPerUnit ?? 1;
  return e ? `${((e.hi[0] - e.lo[0]) * m).toFixed(1)} × ${((e.hi[2] - e.lo[2]) * m).toFixed(1)} m` : '';
}
/** What the bar at the foot says of a scene. */
export function stageReadout(all: DrawList): ReturnType<NonNullable<ScreenControl['readout']>> {
  const { scene } = useSession();

  const placed = scene?.placements.flat() ?? [],
    parts = new Set(placed.flatMap((p) => (p.shows.kind === 'part' ? [p.shows.part] : [])));
  const cubes = all.reduce((sum, i) => sum + (i.geometry.kind === 'grid' ? i.geometry.grid.count : 1), 0);
  return {
    left: [
      ['parts', parts.size.toLocaleString('en')],
      ['placements', placed.length.toLocaleString('en')],
      ['drawn', all.length.toLocaleString('en')],
      ['cubes', cubes.toLocaleString('en')],
      ['meshes', new Set(all.map((i) => i.geometry)).size.toLocaleString('en')],
    ],
    right: sizeText(all),
  };
}

/** Where one is: the scene, what things hang on, and what is in hand. */
export function stageTrail(lamp: string | null): string[] {
  const session = useSession(),
    project = session.project,
    p = session.placement;
  const up: string[] = [];
  for (let at = p?.parent; at; at = findIn(session.scene!.placements, at)?.parent) {
    const above = findIn(session.scene!.placements, at);
    if (above) up.unshift(placementName(project!, above));
  }
  const copy = copyInHand();
  return [
    session.scene?.name ?? project?.name ?? '',
    ...up,
    ...(p ? [placementName(project!, p)] : []),
    ...(copy ? [`copy ${copy.copy + 1}`] : []),
    ...(lamp === null ? [] : [lamp]),
  ];
}
