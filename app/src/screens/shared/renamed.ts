import type { Project } from '@sphalerite/core/model';
import type { Edit } from '@sphalerite/core/project';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { say } from '../../words';

/** Renames, and says so when the name was taken and another came of it. `nameOf` reads the name afterwards. */
export function renamed<A extends { readonly name: string }>(
  edit: Edit<A>,
  args: A,
  nameOf: (after: Project) => string | undefined,
): void {
  const session = useSession();
  if (!session.apply(edit, args)) return;
  const name = nameOf(session.project!),
    wanted = args.name.trim();
  if (name !== undefined && name !== wanted) useNotices().say(say('rename.taken', { wanted, name }));
}
