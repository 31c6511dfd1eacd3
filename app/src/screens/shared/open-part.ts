import { type Id, type Mount, isWorn } from '@sphalerite/core/model';
import type { Command } from '../../stores/commands';
import { all, need, needsBone } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { useWayBack } from '../../stores/way-back';

/** The part of a bone that is meant: the one in hand where it hangs there, else the first that is worn. */
export function partOn(bone: Id): Id | null {
  const session = useSession(),
    rig = session.project?.rig;
  const mine = rig?.mounts.filter((m) => m.bone === bone) ?? [];
  const worn = (m: Mount): boolean => isWorn(rig!, m);
  return (mine.find((m) => m.part === session.hand.part) ?? mine.find(worn) ?? mine[0])?.part ?? null;
}

/** From a bone to the part that hangs on it. */
export function openPartCommand(group: string): Command {
  const session = useSession();
  return {
    id: 'part.open',
    title: 'Open the part on this bone in Build',
    group,
    keys: ['Enter'],
    enabled: all(
      needsBone,
      need(() => partOn(session.bone!.id) !== null, 'nothing hangs on this bone'),
    ),
    run: () => useWayBack().open(partOn(session.bone!.id)!),
  };
}
