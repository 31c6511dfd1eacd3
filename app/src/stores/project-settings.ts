import { watch } from 'vue';
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
 * when it is opened, unless another was opened meanwhile.
 * @returns keeps a new value for the project that is open
 */
export function projectSetting<T>(name: string, fallback: T, take: (stored: T) => void): (value: T) => void {
  let current = '';
  onOtherProject(async (id) => {
    current = id;
    const stored = await getSetting<T>(`${name} ${id}`, fallback);
    if (current === id) take(stored);
  });
  return (value) => {
    if (current) void putSetting(`${name} ${current}`, value);
  };
}
