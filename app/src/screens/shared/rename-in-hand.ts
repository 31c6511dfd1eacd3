import { useDialogs } from '../../stores/dialogs';
import type { Command } from '../../stores/commands';
import { all, need, needsWriting } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';

/** Its name in the tray is written anew: the same key for whatever is in hand. */
export const renameInHand = (kind: 'part' | 'bone' | 'clip' | 'shot', group: string): Command => ({
  id: `${kind}.rename`,
  title: `Rename the ${kind}`,
  group,
  keys: ['F2'],
  enabled: all(
    need(() => useSession().hand[kind] !== null, `choose a ${kind} first`),
    needsWriting,
  ),
  run: () => {
    useSettings().settings.sidesFolded = false;
    const dialogs = useDialogs();
    dialogs.renaming = useSession().hand[kind];
    // A row that its tray's filter hides is not renamed later on.
    setTimeout(() => (dialogs.renaming = null), 500);
  },
});
