import type { Command } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';
import { needsPart } from '../../stores/needs';

/** Whether a part is on the bench. */
export const has = (): boolean => useSession().part !== null;
/** A command that needs a part on the bench. */
export const part = (
  id: string,
  title: string,
  run: () => unknown,
  keys?: string[],
  icon?: Command['icon'],
  on?: () => boolean,
): Command => ({
  id,
  title,
  group: id.split('.')[0] === 'part' ? 'Part' : 'Build',
  enabled: needsPart,
  run,
  ...(keys ? { keys } : {}),
  ...(icon ? { icon } : {}),
  ...(on ? { on } : {}),
});

/** The layer in hand, as edits of cells want it. */
export const target = () => {
  const session = useSession();
  return { part: session.part!.id, layer: session.layer!.id, limit: useBuild().limit };
};
