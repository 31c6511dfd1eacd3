import { watch } from 'vue';
import type * as z from 'zod';
import { getSetting, putSetting } from '../storage/settings-store';
import { useSession } from './session';

/** Runs when another project than the last is opened, and at once for one that is open. */
export function onOtherProject(run: (id: string) => void): void {
  const session = useSession();
  let known = '';
  watch(
    () => session.project?.id,
    (id) => {
      if (!id || id === known) return;
      known = id;
      run(id);
    },
    { immediate: true },
  );
}

/**
 * A setting that every project has for itself, stored as `<name> <project>`. `take` gets what is stored of a project
 * when it is opened, as `schema` reads it (which has to say what counts where nothing is stored), unless another was opened meanwhile.
 * @returns keeps a new value for the project that is open
 */
export function projectSetting<T>(name: string, schema: z.ZodType<T>, take: (stored: T) => void): (value: T) => void {
  let current = '';
  onOtherProject(async (id) => {
    current = id;
    const stored = await getSetting(`${name} ${id}`, schema);
    if (current === id) take(stored);
  });
  return (value) => {
    if (current) void putSetting(`${name} ${current}`, value);
  };
}
