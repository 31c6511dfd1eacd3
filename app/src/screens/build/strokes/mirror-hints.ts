import { type Part, composite, sideSuffix } from '@sphalerite/core/model';
import { strokeEdit } from '@sphalerite/core/project';
import { unpairedCells } from '@sphalerite/core/sculpt';
import { defineStore } from 'pinia';
import { watch } from 'vue';
import { useNotices } from '../../../stores/notices';
import { onOtherProject } from '../../../stores/project-settings';
import { useSession } from '../../../stores/session';
import { say } from '../../../words';
import { useBuild } from '../build-state';

const AXIS = ['X', 'Y', 'Z'] as const;
/** Parts of fewer cubes have no sides yet; looking over larger ones would be felt. */
const FEWEST = 40,
  MOST = 30_000;

/** Says of a mirror that was forgotten, on or off, at the first stroke for which it matters in a part. */
export const useMirrorHints = defineStore('mirror-hints', () => {
  const session = useSession();
  const build = useBuild();
  const notices = useNotices();
  /** Parts in which the mirror was switched on or off, or in which it was told of already. */
  const known = new Set<string>();
  onOtherProject(() => known.clear());
  watch(
    () => build.mirrorOn.join(),
    () => {
      known.clear();
      if (session.part) known.add(session.part.id);
    },
  );

  const isAlike = (part: Part): boolean => unpairedCells(composite(part), 0, build.middles[0], false).isEmpty;

  /** After a stroke that changed a part. */
  function told(before: Part, args: Parameters<typeof strokeEdit.run>[1]): void {
    const after = session.part;
    if (!after || after.id !== before.id || known.has(after.id)) return;
    const part = after.name + sideSuffix(after.side);
    const live = AXIS.filter((_, i) => build.mirror[i] !== null);
    if (live.length > 0) {
      known.add(after.id);
      notices.say(say('mirror.stillOn', { axes: live.join(' '), part }), {
        action: { label: 'Switch it off', run: () => (build.mirrorOn = [false, false, false]) },
      });
      return;
    }
    const { count } = composite(before);
    if (build.radial || count < FEWEST || count > MOST || !isAlike(before) || isAlike(after)) return;
    known.add(after.id);
    const run = (): void => {
      session.undo();
      build.toggleMirror(0);
      session.apply(strokeEdit, { ...args, stroke: { ...args.stroke, symmetry: build.symmetry } });
    };
    notices.say(say('mirror.isOff', { part }), { action: { label: 'Mirror it', run } });
  }
  return { told };
});
