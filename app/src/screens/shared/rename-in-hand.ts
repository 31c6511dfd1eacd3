import { useDialogs } from '../../stores/dialogs';
import type { Command } from '../../stores/commands';
import { all, need, needsWriting } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';

/** Its name in the tray waits to be written: of what is there, or is about to be. */
export function nameInPlace(id: string): void {
  useSettings().settings.sidesFolded = false;
  const dialogs = useDialogs();
  dialogs.renaming = id;
  // A row that its tray's filter hides is not renamed later on.
  setTimeout(() => (dialogs.renaming = null), 1500);
}

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
  run: () => nameInPlace(useSession().hand[kind]!),
});

const LISTS = { part: 'parts', bone: 'bones', clip: 'clips' } as const;
/** All that are chosen get new names by one rule, or all there are when only one is. */
export const renameByRule = (kind: keyof typeof LISTS, group: string): Command => {
  const session = useSession();
  const all = (): readonly { readonly id: string }[] => {
    const p = session.project;
    return p ? (kind === 'bone' ? p.rig.bones : kind === 'part' ? p.parts : p.clips) : [];
  };
  return {
    id: `${kind}.renameMany`,
    title: `Rename many ${LISTS[kind]}…`,
    group,
    keys: ['Shift+F2'],
    enabled: need(() => all().length > 0, `there are no ${LISTS[kind]} yet`),
    run: () => {
      const chosen = session.view.chosen[kind];
      useDialogs().renameMany = { of: LISTS[kind], ids: chosen.length > 1 ? chosen : all().map((r) => r.id) };
    },
  };
};
