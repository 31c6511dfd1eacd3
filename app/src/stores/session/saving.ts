import type { Project } from '@sphalerite/core/model';
import type { History } from '@sphalerite/core/project';
import { ref } from 'vue';
import { Autosaver, type SaveState } from '../../storage/autosave';
import { type Hold, holdProject } from '../../storage/lock';
import { type OpenedProject, openStored } from '../../storage/open-stored';
import { ProjectWriter } from '../../storage/project-writer';
import { setThumbnail } from '../../storage/shelf';
import { GoneError, TakenOverError, isFull, UnreadableError } from '../../storage/storage-errors';
import { sweep } from '../../storage/sweep';
import type { ViewState } from '../../storage/view-state';
import { projectPicture } from '../../workers/thumbnails';
import { useNotices } from '../notices';
import { say } from '../../words';

/** The right to write a project, and its saving while it is open. */
interface Seat {
  readonly hold: Hold;
  readonly saver: Autosaver;
}

/** How long after a save the picture for the shelf follows, in milliseconds. */
const PICTURE_AFTER = 2000;

/** Opens stored projects and keeps the open one saved. */
export function useSaving(project: () => Project | null, history: () => History<ViewState> | null) {
  const notices = useNotices();
  const writable = ref(false);
  const saveState = ref<SaveState>('saved');
  const savedAt = ref(0);
  let seat: Seat | null = null;
  let pictureTimer: ReturnType<typeof setTimeout> | undefined;
  let notice: number | null = null;

  /** Takes a project for this window. The one before must have been left. @throws Error with a sentence */
  async function take(id: string, fromOthers: boolean): Promise<OpenedProject> {
    let lost = false;
    const hold = await holdProject(id, fromOthers, () => {
      lost = true;
      if (seat?.hold === hold) giveUp();
    });
    try {
      const opened = await openStored(id, hold.epoch);
      seat = { hold, saver: saverOf(opened.writer) };
      writable.value = hold.writable && !lost;
      saveState.value = 'saved';
      savedAt.value = opened.history.entries[0]!.at;
      return opened;
    } catch (e) {
      hold.release();
      throw e;
    }
  }

  const saverOf = (writer: ProjectWriter): Autosaver =>
    new Autosaver(writer, onSave, (e) => !(e instanceof TakenOverError || e instanceof GoneError));

  /** Lets the open project go. What was not written by then is lost: see {@link settled}. */
  function leave(): void {
    seat?.saver.stop();
    seat?.hold.release();
    seat = null;
    clearTimeout(pictureTimer);
    quiet();
  }

  /** Writes what waits; gives whether all of it is safe. */
  async function settled(): Promise<boolean> {
    await seat?.saver.flush();
    return seat === null || !writable.value || seat.saver.idle;
  }

  /** Sweeps what no step needs any more, once the page has nothing else to do. */
  function tidySoon(writer: ProjectWriter): void {
    whenIdle(() => {
      if (seat && writable.value)
        void sweep(writer).catch((e: Error) => {
          // Tidying is tried again at the next opening; a loss of the right to write is told by the save, damage by the opening.
          const told = [TakenOverError, GoneError, UnreadableError].some((known) => e instanceof known);
          if (!told) notices.fail(e);
        });
    });
  }

  function giveUp(): void {
    writable.value = false;
    seat?.saver.stop();
    quiet();
    notices.say(new TakenOverError().message, { kind: 'error' });
  }

  function onSave(state: SaveState, error?: Error): void {
    saveState.value = state;
    if (state === 'saved') {
      savedAt.value = Date.now();
      quiet();
      const p = project();
      if (p) pictureSoon(p);
    }
    if (error instanceof TakenOverError) giveUp();
    else if (error instanceof GoneError)
      keep(error.message, { label: 'Put it back', run: () => void putBack().catch(notices.fail) });
    else if (error && isFull(error)) keep(say('save.full'));
    else if (error) keep(say('save.failed', { why: error.message }));
  }

  /** A notice that stays until saving goes on. */
  function keep(text: string, action?: { label: string; run(): void }): void {
    notice = notices.say(text, { kind: 'error', stays: true, ...(action ? { action } : {}) });
  }
  function quiet(): void {
    if (notice !== null) notices.dismiss(notice);
    notice = null;
  }

  /** Writes the whole history anew after the project was deleted elsewhere. */
  async function putBack(): Promise<void> {
    const h = history();
    const p = project();
    if (!seat || !h || !p) return;
    seat.saver.stop();
    seat = { ...seat, saver: saverOf(new ProjectWriter(p.id, seat.hold.epoch)) };
    seat.saver.changed(h);
    await seat.saver.flush();
  }

  /** The picture for the shelf follows a little after the work. */
  function pictureSoon(p: Project): void {
    clearTimeout(pictureTimer);
    pictureTimer = setTimeout(() => {
      // A picture that fails leaves the one before; the next save asks for a new one.
      void projectPicture(p)
        .then((png) => setThumbnail(p.id, png))
        .catch((e: Error) => console.error('The picture for the shelf was not made:', e.message));
    }, PICTURE_AFTER);
  }

  return {
    writable,
    saveState,
    savedAt,
    take,
    leave,
    settled,
    tidySoon,
    changed: (h: History<ViewState>): void => seat?.saver.changed(h),
    flush: async (): Promise<void> => seat?.saver.flush(),
    idle: (): boolean => seat?.saver.idle ?? true,
    lastBytes: (): number => seat?.saver.lastBytes ?? 0,
  };
}

export type Saving = ReturnType<typeof useSaving>;

const whenIdle = (work: () => void): void => {
  if ('requestIdleCallback' in window) requestIdleCallback(work, { timeout: 5000 });
  else setTimeout(work, 1500);
};
