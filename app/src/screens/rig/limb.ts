import { addLimbEdit, bendWord } from '@sphalerite/core/project';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { say } from '../../words';
import { useRig } from './rig-state';

/** Makes a limb, takes its goal in hand and lets one try it. */
export function makeLimb(args: Parameters<typeof addLimbEdit.run>[1]): void {
  const session = useSession();
  const rig = useRig();
  const notices = useNotices();
  const goalOf = (bones: NonNullable<typeof session.project>): string => {
    const made = bones.rig.constraints.at(-1)!;
    return made.kind === 'ik' ? made.goal : args.tip;
  };
  if (!session.apply(addLimbEdit, args, (p) => ({ bone: goalOf(p) }))) return;
  const made = session.project!.rig.constraints.at(-1)!;
  rig.handle = 'try';
  if (made.kind === 'ik') notices.say(say('limb.made', { bend: bendWord(made.bend) }));
}
