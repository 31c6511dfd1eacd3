import { IconBoxMultiple } from '@tabler/icons-vue';
import { AXES, boxEnd, mapVec } from '@sphalerite/core/math';
import {
  addLayerEdit,
  addPartEdit,
  centrePartEdit,
  clearPartEdit,
  coarsenPartEdit,
  deletePartEdit,
  each,
  duplicateAsAlternateEdit,
  duplicatePartEdit,
  mergeLayerEdit,
  refinePartEdit,
  setPartHiddenEdit,
  setRowEdit,
  shrinkPartEdit,
  shrinkPartsEdit,
  standOnFloorEdit,
} from '@sphalerite/core/project';
import type { Command } from '../../stores/commands';
import { need } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { nameInPlace, renameByRule, renameInHand } from '../shared/rename-in-hand';
import { useBuild } from './build-state';
import { applyToPart } from './heavy';
import { freeVolume, scaleVolume } from './volume-actions';

import { part } from './build-target';
import { groupCommands } from './group-commands';

const AXIS = ['X', 'Y', 'Z'] as const;
/** A row more, a row less. */
const ROW_KEYS = [
  ['Alt+Right', 'Alt+Left'],
  ['Alt+Up', 'Alt+Down'],
  ['Alt+PageUp', 'Alt+PageDown'],
] as const;

/** Volumes, parts and layers. */
export function partCommands(): Command[] {
  /** The parts that are chosen. */
  const parts = (): readonly string[] => useSession().view.chosen.part;
  const session = useSession();
  const build = useBuild();
  return [
    part(
      'volume.handles',
      'Handles on the volume',
      () => (build.handles = build.handles === 'volume' ? null : 'volume'),
      ['V'],
      IconBoxMultiple,
      () => build.handles === 'volume',
    ),
    part('volume.double', 'Double the volume', () => scaleVolume(2), ['Ctrl+Alt+Up']),
    part('volume.halve', 'Halve the volume', () => scaleVolume(0.5), ['Ctrl+Alt+Down']),
    part(
      'part.new',
      'New part',
      () => {
        // Its lattice is the world's, as that of the parts around it.
        const bounds = freeVolume(session.project!, [16, 16, 16]),
          at = mapVec(bounds.min, (m, a) => (a === 1 ? m : m + bounds.size[a]! / 2));
        if (
          session.apply(addPartEdit, { name: 'Part', bounds, at }, (p) => ({ part: p.parts.at(-1)!.id, layer: null }))
        )
          nameInPlace(session.part!.id);
      },
      ['Shift+N'],
    ),
    renameInHand('part', 'Part'),
    renameByRule('part', 'Part'),
    part(
      'part.duplicate',
      'Duplicate the part',
      () => {
        const before = new Set(session.project!.parts.map((p) => p.id));
        const made = session.apply(
          each(duplicatePartEdit),
          parts().map((part) => ({ part })),
          (p) => ({ part: p.parts.filter((o) => !before.has(o.id)).map((o) => o.id), layer: null }),
        );
        // Several are named by one rule, one in its row.
        if (made && session.view.chosen.part.length === 1) nameInPlace(session.part!.id);
      },
      ['Ctrl+D'],
    ),
    part(
      'part.alternate',
      'Duplicate the part as an alternate of it',
      () =>
        session.apply(duplicateAsAlternateEdit, { part: session.part!.id }, (p) => ({
          part: p.parts[p.parts.findIndex((o) => o.id === session.part!.id) + 1]!.id,
          layer: null,
        })),
      ['Ctrl+Alt+A'],
    ),
    {
      id: 'part.again',
      title: 'Make the part again with other settings',
      group: 'Part',
      enabled: need(() => Boolean(session.part?.made), 'it was built by hand, not brought in'),
      run: async () => (await import('../../shell/files/dispatcher')).makeAgain(),
    },
    ...groupCommands(),
    part(
      'part.delete',
      'Delete the part (to the bin)',
      () =>
        session.apply(
          each(deletePartEdit),
          parts().map((part) => ({ part })),
        ),
      ['Shift+Delete'],
    ),
    part(
      'part.hide',
      'Hide or show the part',
      () =>
        session.apply(
          each(setPartHiddenEdit),
          parts().map((part) => ({ part, hidden: !session.part!.hidden })),
        ),
      ['Shift+H'],
    ),
    part('part.shrink', 'Shrink to fit', () => session.apply(shrinkPartEdit, { part: session.part!.id }), ['Shift+V']),
    part(
      'part.shrinkAll',
      'Shrink all parts to fit',
      () => session.apply(shrinkPartsEdit, { parts: session.project!.parts.map((p) => p.id) }),
      ['Alt+V'],
    ),
    part(
      'part.centre',
      'Centre the cubes in the volume',
      () => applyToPart(centrePartEdit, { part: session.part!.id, down: true }),
      ['Alt+C'],
    ),
    part('part.stand', 'Stand everything on the floor', () => session.apply(standOnFloorEdit, {}), ['Ctrl+Alt+G']),
    part('part.clear', 'Clear the part', () => session.apply(clearPartEdit, { part: session.part!.id }), [
      'Ctrl+Delete',
    ]),
    part('part.refine2', 'Refine ×2', () => applyToPart(refinePartEdit, { part: session.part!.id, by: 2 }, 8), [
      'Alt+Plus',
      'Alt+=',
    ]),
    part('part.refine3', 'Refine ×3', () => applyToPart(refinePartEdit, { part: session.part!.id, by: 3 }, 27), [
      'Ctrl+Alt+=',
      'Ctrl+Alt+Plus',
    ]),
    part('part.coarsen2', 'Coarsen ÷2', () => applyToPart(coarsenPartEdit, { part: session.part!.id, by: 2 }), [
      'Alt+-',
    ]),
    part('part.coarsen3', 'Coarsen ÷3', () => applyToPart(coarsenPartEdit, { part: session.part!.id, by: 3 }), [
      'Ctrl+Alt+-',
    ]),
    ...rowCommands(),
    ...layerCommands(),
  ];
}

/** A row more or less in the middle of the volume. */
function rowCommands(): Command[] {
  const session = useSession();
  return [
    ...AXES.flatMap((a): Command[] =>
      ([1, -1] as const).map((by) =>
        part(
          `part.row${by > 0 ? 'Add' : 'Remove'}${AXIS[a]}`,
          `${by > 0 ? 'Add a row' : 'Remove the row'} in the middle along ${AXIS[a]}`,
          () => {
            const b = session.part!.bounds;
            applyToPart(setRowEdit, {
              part: session.part!.id,
              axis: a,
              at: b.min[a] + ((boxEnd(b)[a] - b.min[a] - 1) >> 1),
              by,
            });
          },
          [ROW_KEYS[a][by > 0 ? 0 : 1]],
        ),
      ),
    ),
  ];
}

function layerCommands(): Command[] {
  const session = useSession();
  return [
    part(
      'layer.new',
      'New layer',
      () =>
        session.apply(
          addLayerEdit,
          { part: session.part!.id, name: `Layer ${session.part!.layers.length + 1}`, above: session.layer!.id },
          (p) => {
            const layers = p.parts.find((o) => o.id === session.part!.id)!.layers;
            return { layer: layers[layers.findIndex((l) => l.id === session.layer!.id) + 1]!.id };
          },
        ),
      ['Ctrl+Shift+L'],
    ),
    part(
      'layer.merge',
      'Merge the layer down',
      () => session.apply(mergeLayerEdit, { part: session.part!.id, layer: session.layer!.id }),
      ['Ctrl+Shift+E'],
    ),
  ];
}
