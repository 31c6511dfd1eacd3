import { IconArrowBarToDown, IconCopy, IconFolders } from '@tabler/icons-vue';
import { quatFromAxisAngle, mulQuat } from '@sphalerite/core/math';
import { type Lamp, cellOfScene, findIn, placementName } from '@sphalerite/core/model';
import {
  addSceneEdit,
  deleteSceneEdit,
  duplicatePlacementsEdit,
  groupPlacementsEdit,
  keepAsStampEdit,
  ownPartsEdit,
  refitPlacementsEdit,
  removeLampsEdit,
  removePlacementsEdit,
  splitPlacementEdit,
} from '@sphalerite/core/project';
import type { DrawList } from '@sphalerite/core/scene';
import { type Command, runCommand } from '../../stores/commands';
import { all, need, needsPlacement, needsScene, needsWriting } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { useShipSubject } from '../../stores/ship-subject';
import { nameInPlace } from '../shared/rename-in-hand';
import { dropBy } from './landing';
import { copyInHand, leaveOut } from './copy-in-hand';
import { handleCommands } from './handle-commands';
import { moveInHand } from './moving';
import { openInPlace } from './open-in-place';
import { extentOfList } from './placing';
import { useStage } from './stage-state';

interface Shown {
  list(): DrawList;
  /** What the chosen show. */
  mine(): DrawList;
  /** The lamp in hand. */
  lamp(): Lamp | null;
}

/** Scenes themselves. */
function sceneCommands(): Command[] {
  const session = useSession();
  return [
    {
      id: 'scene.new',
      title: 'New scene',
      group: 'Stage',
      enabled: needsWriting,
      run() {
        session.apply(addSceneEdit, { name: 'Scene' }, (p) => ({ scene: p.scenes.at(-1)!.id, placement: null }));
      },
    },
    {
      id: 'scene.delete',
      title: 'Delete the scene (to the bin)',
      group: 'Stage',
      enabled: all(needsWriting, needsScene),
      run: () => session.apply(deleteSceneEdit, { scene: session.scene!.id }),
    },
  ];
}

/** Scenes and what stands in them. */
export function stageCommands({ list, mine, lamp }: Shown): Command[] {
  const session = useSession();
  const some = all(needsWriting, needsPlacement);
  const target = () => ({ scene: session.scene!.id, placements: session.view.chosen.placement });
  const of = (id: string, title: string, run: () => unknown, more: Partial<Command> = {}): Command => ({
    ...{ id, title, group: 'Stage', enabled: some, run },
    ...more,
  });
  return [
    ...sceneCommands(),
    ...handleCommands(),
    of(
      'stage.duplicate',
      'Duplicate, linked',
      () => {
        const e = extentOfList(mine()),
          wide = e ? Math.ceil(e.hi[0] - e.lo[0]) + 1 : 1,
          n = session.scene!.placements.flat().length;
        session.apply(duplicatePlacementsEdit, { ...target(), shift: [wide, 0, 0], linked: true }, (p) => ({
          placement: p.scenes
            .find((s) => s.id === session.scene!.id)!
            .placements.flat()
            .slice(n)
            .filter((c, _i, copies) => !copies.some((o) => o.id === c.parent))
            .map((c) => c.id),
        }));
      },
      { keys: ['Ctrl+D'], icon: IconCopy },
    ),
    of('stage.own', 'Give it a part of its own', () => session.apply(ownPartsEdit, target()), { keys: ['Shift+I'] }),
    of(
      'stage.group',
      'Group what is chosen',
      () => {
        if (
          session.apply(groupPlacementsEdit, { ...target(), name: 'Group' }, (p) => ({
            placement: p.scenes
              .find((s) => s.id === session.scene!.id)!
              .placements.flat()
              .at(-1)!.id,
          }))
        )
          nameInPlace(session.hand.placement!);
      },
      { keys: ['Shift+G'], icon: IconFolders },
    ),
    of(
      'stage.drop',
      'Drop onto what is below',
      () => {
        const own = mine(),
          e = extentOfList(own),
          by = e && dropBy(list(), own, e);
        if (by !== null) moveInHand((w) => ({ ...w, t: [w.t[0], w.t[1] - by, w.t[2]] }), true);
      },
      { keys: ['End'], icon: IconArrowBarToDown },
    ),
    of(
      'stage.quarter',
      'Turn by a quarter',
      () => {
        const q = quatFromAxisAngle([0, 1, 0], Math.PI / 2);
        moveInHand((w) => ({ ...w, q: mulQuat(q, w.q) }), true);
      },
      { keys: ['Q'] },
    ),
    of('stage.refit', 'Refit to the cubes of the scene', () =>
      session.applyInBackground(refitPlacementsEdit, {
        ...target(),
        cell: cellOfScene(session.project!, session.scene!.id),
      }),
    ),
    of('stage.split', 'Split into its loose pieces', () =>
      session.applyInBackground(splitPlacementEdit, {
        scene: session.scene!.id,
        placement: session.hand.placement!,
      }),
    ),
    of('stage.stamp', 'Keep as a stamp', async () => {
      const p = session.placement;
      if (
        p &&
        (await session.applyInBackground(keepAsStampEdit, { ...target(), name: placementName(session.project!, p) }))
      )
        useStage().palette = 'stamps';
    }),
    of(
      'stage.remove',
      'Take out of the scene',
      () => {
        const copy = copyInHand(),
          lit = lamp();
        if (lit) session.apply(removeLampsEdit, { scene: session.scene!.id, lamps: [lit.id] });
        else if (copy) leaveOut(copy);
        else session.apply(removePlacementsEdit, target());
      },
      {
        keys: ['Delete'],
        enabled: all(
          needsWriting,
          need(() => session.placement !== null || lamp() !== null, 'nothing is chosen'),
        ),
      },
    ),
    of('stage.ship', 'Ship this alone', async () => {
      useShipSubject().only = { of: 'group', id: session.hand.placement! };
      await runCommand('go.ship');
    }),
    of(
      'stage.open',
      'Edit its part in place',
      () => {
        const p = findIn(session.scene!.placements, session.hand.placement!);
        if (p?.shows.kind === 'part')
          openInPlace({ path: [p.id], part: p.shows.part, mount: null, copy: copyInHand()?.copy ?? 0 });
      },
      {
        keys: ['Enter'],
        enabled: all(
          needsPlacement,
          need(() => session.placement?.shows.kind === 'part', 'it shows no part of this project'),
        ),
      },
    ),
  ];
}
