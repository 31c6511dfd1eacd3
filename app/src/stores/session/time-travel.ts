import type { Project } from '@sphalerite/core/model';
import { type History, canRedo, canUndo, jump } from '@sphalerite/core/project';
import { type ComputedRef, type Ref, type ShallowRef, computed } from 'vue';
import type { ViewState } from '../../storage/view-state';
import { runCommand } from '../commands';
import { useNotices } from '../notices';
import { repairedView } from './choice';
import type { Saving } from './saving';

/** What moves through the history. */
interface Moved {
  readonly history: ShallowRef<History<ViewState> | null>;
  readonly preview: ShallowRef<Project | null>;
  readonly view: Ref<ViewState>;
  readonly where: Ref<string>;
  readonly project: ComputedRef<Project | null>;
}

/** Back and forth through the steps of the history, with what was chosen at each. */
export function useTimeTravel({ history, preview, view, where, project }: Moved, saving: Saving) {
  const notices = useNotices();

  function moveTo(index: number): void {
    const h = history.value;
    if (!h || !saving.writable.value) return;
    preview.value = null;
    const next = jump(h, index);
    if (next === h) return;
    const back = index < h.now;
    const moved = h.entries[back ? index + 1 : index]!;
    history.value = next;
    view.value = repairedView(project.value, back ? moved.viewBefore : moved.viewAfter);
    saving.changed(next);
    sayMoved(back, moved.label, moved.where);
  }
  /** The screen never changes by surprise; it is offered. */
  function sayMoved(back: boolean, label: string, on: string): void {
    const elsewhere = on !== '' && on !== where.value;
    const show = () => void runCommand(`go.${on.toLowerCase()}`).catch(notices.fail);
    notices.say(
      `${back ? 'Undid' : 'Redid'}: ${label}${elsewhere ? ` (in ${on})` : ''}`,
      elsewhere ? { action: { label: 'Show', run: show } } : {},
    );
  }
  /** Something that hangs in the air is put away first; gives whether there was such a thing. */
  let interrupt: (() => boolean) | null = null;
  function onInterrupt(f: (() => boolean) | null): void {
    interrupt = f;
  }
  function undo(): void {
    if (!interrupt?.()) moveTo((history.value?.now ?? 0) - 1);
  }
  function redo(): void {
    interrupt?.();
    moveTo((history.value?.now ?? 0) + 1);
  }
  return {
    canUndo: computed(() => history.value !== null && canUndo(history.value)),
    canRedo: computed(() => history.value !== null && canRedo(history.value)),
    moveTo,
    undo,
    redo,
    onInterrupt,
  };
}
