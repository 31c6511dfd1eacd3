import { groupPartsEdit, ungroupPartsEdit } from '@sphalerite/core/project';
import type { Command } from '../../stores/commands';
import { need } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { nameInPlace } from '../shared/rename-in-hand';
import { part } from './build-target';
import { groupRow } from './tray-rows';

/** Parts that lie together in the tray. */
export function groupCommands(): Command[] {
  const session = useSession();
  return [
    part(
      'part.group',
      'Group the parts',
      () => {
        if (session.apply(groupPartsEdit, { parts: session.view.chosen.part, name: 'Group' }))
          nameInPlace(groupRow(session.part!.group!));
      },
      ['Shift+G'],
    ),
    {
      id: 'part.ungroup',
      title: 'Ungroup the parts',
      group: 'Part',
      enabled: need(() => Boolean(session.part?.group), 'the part lies in no group'),
      run: () => session.apply(ungroupPartsEdit, { group: session.part!.group! }),
    },
  ];
}
