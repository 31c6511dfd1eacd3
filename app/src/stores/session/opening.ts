import type { Project } from '@sphalerite/core/model';
import type { History } from '@sphalerite/core/project';
import { type ComputedRef, type Ref, type ShallowRef, ref } from 'vue';
import type { OpenedProject } from '../../storage/open-stored';
import { EMPTY_VIEW, type ViewState } from '../../storage/view-state';
import { useNotices } from '../notices';
import { repairedView } from './choice';
import type { Saving } from './saving';

/** What an open project is held in. */
interface Held {
  readonly history: ShallowRef<History<ViewState> | null>;
  readonly preview: ShallowRef<Project | null>;
  readonly view: Ref<ViewState>;
  readonly project: ComputedRef<Project | null>;
}

/** Puts stored projects on the bench, one after another. */
export function useOpening({ history, preview, view, project }: Held, saving: Saving) {
  const notices = useNotices();
  /** Whether steps before the present are still being read. */
  const reading = ref(false);
  let opening: Promise<unknown> = Promise.resolve();
  let openings = 0;
  let latest = 0;

  /**
   * Opens a project in place of the one before, unless it is open. Several at once come one after the other, so that none
   * is saved as another, and those that were overtaken are left out.
   */
  function open(id: string, take = false): Promise<void> {
    const mine = ++latest;
    const turn = opening.then(async () => {
      if (mine === latest && (take || project.value?.id !== id)) await openNow(id, take);
    });
    openings++;
    opening = turn.catch(() => undefined).finally(() => openings--);
    return turn;
  }
  async function openNow(id: string, take: boolean): Promise<void> {
    await close();
    const opened = await saving.take(id, take);
    history.value = opened.history;
    view.value = repairedView(project.value, opened.history.entries[0]!.viewAfter);
    for (const note of opened.notes) notices.say(note, { kind: 'error' });
    void readRest(opened);
  }
  /** The steps before and after the present come in while one works already. */
  async function readRest({ rest, writer, history: begun }: OpenedProject): Promise<void> {
    reading.value = true;
    const present = begun.entries[0];
    try {
      const join = await rest();
      if (history.value?.entries.includes(present!)) history.value = join(history.value);
      saving.tidySoon(writer);
    } catch (e) {
      notices.fail(e);
    } finally {
      reading.value = false;
    }
  }
  /** Leaves the open project; what still waits is written first, if it can be. */
  async function close(): Promise<void> {
    await saving.settled();
    saving.leave();
    preview.value = null;
    history.value = null;
    view.value = EMPTY_VIEW;
  }
  return { open, close, idle: (): boolean => !reading.value && openings === 0 };
}
