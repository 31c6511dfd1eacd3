import { IconStack2 } from '@tabler/icons-vue';
import { placeCellsEdit, strokeEdit } from '@sphalerite/core/project';
import { NO_SYMMETRY } from '@sphalerite/core/sculpt';
import { helperBytes } from '@sphalerite/core/model';
import { CellSet } from '@sphalerite/core/voxel';
import { useNotices } from '../../stores/notices';
import type { Command } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';
import { useHollow } from './hollow/hollow-state';
import type { useTints } from './tints';

import { part, target } from './build-target';
import { say } from '../../words';

/** What looks the part over, and what mends it. */
export function tidyCommands(tints: ReturnType<typeof useTints>): Command[] {
  const session = useSession();
  const build = useBuild();
  const hollow = useHollow();
  const notices = useNotices();
  const tint = (t: typeof build.tint): void => void (build.tint = build.tint === t ? 'none' : t);
  const clear = (cells: CellSet, title: string): void => {
    if (cells.isEmpty) notices.say(say('tidy.none'));
    else session.apply(placeCellsEdit, { ...target(), clear: cells, put: [], title });
  };
  return [
    part(
      'tint.unpaired',
      'Tint cubes without a twin',
      () => tint('unpaired'),
      ['Y'],
      undefined,
      () => build.tint === 'unpaired',
    ),
    part(
      'tint.grain',
      'Grain view: tint what uses the finer grain',
      () => tint('grain'),
      ['Alt+Y'],
      undefined,
      () => build.tint === 'grain',
    ),
    part(
      'tint.layer',
      'Tint the layer in hand',
      () => tint('layer'),
      ['Shift+Y'],
      IconStack2,
      () => build.tint === 'layer',
    ),
    part(
      'tint.tidy',
      'Find loose cubes and holes',
      () => tint('tidy'),
      ['Ctrl+U'],
      undefined,
      () => build.tint === 'tidy',
    ),
    part(
      'tint.silhouette',
      'Silhouette check against the reference picture',
      () => tint('silhouette'),
      ['Shift+U'],
      undefined,
      () => build.tint === 'silhouette',
    ),
    part(
      'tidy.loose',
      'Delete loose cubes',
      () => tints.found.value && clear(tints.found.value.loose, 'Delete loose cubes'),
      ['Ctrl+Alt+L'],
    ),
    part(
      'tidy.holes',
      'Fill single holes with the swatch in hand',
      () => {
        const f = tints.found.value;
        if (f)
          session.apply(strokeEdit, {
            ...target(),
            stroke: {
              verb: 'add',
              value: build.swatch?.byte ?? 1,
              shapes: [{ kind: 'set', set: f.holes }],
              symmetry: NO_SYMMETRY,
            },
          });
      },
      ['Ctrl+Alt+H'],
    ),
    part(
      'tidy.hollow',
      'Hollow out, leaving walls',
      () => (hollow.on = !hollow.on),
      ['Ctrl+Alt+O'],
      undefined,
      () => hollow.on,
    ),
    part(
      'tidy.colours',
      'Unite the nearest of almost equal colours in the layer',
      () => {
        const pair = tints.nearPairs()[0],
          grid = session.layer!.grid;
        if (!pair) {
          notices.say(say('tidy.noneAlike'));
          return;
        }
        const [a, b] = [CellSet.ofValue(grid, pair.a.byte), CellSet.ofValue(grid, pair.b.byte)];
        session.apply(strokeEdit, {
          ...target(),
          stroke: {
            verb: 'paint',
            value: a.count < b.count ? pair.b.byte : pair.a.byte,
            shapes: [{ kind: 'set', set: a.count < b.count ? a : b }],
            symmetry: NO_SYMMETRY,
          },
        });
      },
      ['Ctrl+Alt+U'],
    ),
    part(
      'tidy.helpers',
      'Remove all helper cubes',
      () => {
        const table = session.palette && helperBytes(session.palette);
        clear(
          table ? CellSet.matching(session.layer!.grid, table) : new CellSet({ min: [0, 0, 0], size: [0, 0, 0] }),
          'Remove helper cubes',
        );
      },
      ['Ctrl+Alt+X'],
    ),
  ];
}
