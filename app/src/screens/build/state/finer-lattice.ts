import type { Id } from '@sphalerite/core/model';
import { watch } from 'vue';
import { useSession } from '../../../stores/session';

/**
 * Runs when the part on the bench gets cubes of another size: `by` is how many of the new stand along one of the old. What is
 * kept in cubes of it, planes and cuts, has to go along, also when the step is undone.
 */
export function onOtherCubes(run: (part: Id, by: number) => void): void {
  const session = useSession();
  watch(
    () => ({ id: session.part?.id, cell: session.part?.cell }),
    (now, before) => {
      if (now.id && now.id === before.id && now.cell && before.cell && now.cell !== before.cell)
        run(now.id, before.cell / now.cell);
    },
    { flush: 'sync' },
  );
}
