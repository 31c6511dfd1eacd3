import {
  type Edit,
  type History,
  EditError,
  apply as applyEdit,
  current,
  editContext,
  isRisky,
  record,
  setPoints,
  withPointBefore,
} from '@sphalerite/core/project';
import type { Project } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { freshId } from '../storage/shelf';
import { type Choice, EMPTY_VIEW, type ViewState, chosenAnew } from '../storage/view-state';
import { JobCancelled } from '../workers/protocol';
import { useNotices } from './notices';
import { useBackground } from './session/background';
import { repairedView, useChoice } from './session/choice';
import { useOpening } from './session/opening';
import { useSaving } from './session/saving';
import { useTimeTravel } from './session/time-travel';
import { say } from '../words';

/** What is chosen after an edit, from the project after it. */
type Choosing = (after: Project) => Choice;

/** The project on the bench: its history, what is chosen in it, and its saving. */
export const useSession = defineStore('session', () => {
  const notices = useNotices();
  const history = shallowRef<History<ViewState> | null>(null);
  /** What a tool in motion shows instead of the project; never saved. */
  const preview = shallowRef<Project | null>(null);
  const view = shallowRef<ViewState>(EMPTY_VIEW);
  const where = ref('');
  const project = computed<Project | null>(() => (history.value ? current(history.value) : null));
  const choice = useChoice(project, preview, view);
  const saving = useSaving(
    () => project.value,
    () => history.value,
  );
  const opening = useOpening({ history, preview, view, project }, saving);
  const background = useBackground(() => project.value);

  function setHistory(next: History<ViewState>): void {
    history.value = next;
    view.value = repairedView(project.value, view.value);
    saving.changed(next);
  }

  /** What an edit would give, or null with the reason said. */
  function tryEdit<A>(edit: Edit<A>, args: A, quiet = false): Project | null {
    return project.value && tryOn(project.value, edit, args, quiet ? () => undefined : notices.fail);
  }

  /** What an edit would give on a project that is only shown, or null. */
  function tryOn<A>(p: Project, edit: Edit<A>, args: A, refused: (e: Error) => void = () => undefined): Project | null {
    try {
      return applyEdit(p, edit, args, editContext(freshId(), Date.now()));
    } catch (e) {
      if (!(e instanceof EditError)) throw e;
      refused(e);
      return null;
    }
  }

  function mayWrite(): boolean {
    if (!saving.writable.value) notices.say(say('session.lookingOnly'), { kind: 'error' });
    return saving.writable.value;
  }

  /** What comes of a risky edit has the project before it as a restore point. */
  const guarded = <A>(edit: Edit<A>, args: A, label: string, before: Project, after: Project): Project =>
    isRisky(edit, args)
      ? withPointBefore(before, after, say('restore.before', { label }), editContext(freshId(), Date.now()))
      : after;

  /** Makes `after` the next step of the history. */
  function step(label: string, after: Project, choosing?: Choosing): void {
    const viewBefore = view.value;
    if (choosing) view.value = chosenAnew(viewBefore, choosing(after));
    const made = { label, at: Date.now(), where: where.value, project: after, viewBefore, viewAfter: view.value };
    setHistory(record(history.value!, made));
    notices.workedOn();
  }

  /** Applies an edit as one step of the history. Gives whether anything changed. */
  function apply<A>(edit: Edit<A>, args: A, choosing?: Choosing): boolean {
    preview.value = null;
    const before = project.value;
    if (!before || !mayWrite()) return false;
    const label = edit.label(args, before);
    const after = tryEdit(edit, args);
    if (!after || after === before) return false;
    step(label, guarded(edit, args, label, before, after), choosing);
    return true;
  }

  /** Applies an edit of restore points, which are kept apart from the history: no step of its own, and no undo takes it back. */
  function amend<A>(edit: Edit<A>, args: A): boolean {
    const after = mayWrite() ? tryEdit(edit, args) : null;
    if (!after || after === project.value) return false;
    setHistory(setPoints(history.value!, after.restorePoints));
    return true;
  }

  /** {@link apply} for edits that would hold the page up: in a worker, dropped when stopped or overtaken. */
  async function applyInBackground<A>(edit: Edit<A>, args: A, choosing?: Choosing): Promise<boolean> {
    if (!project.value || !mayWrite()) return false;
    const label = edit.label(args, project.value);
    try {
      const done = await background.run(label, edit, args);
      if (!done || done.after === done.before) return false;
      if (project.value !== done.before) {
        notices.say(say('session.letGo', { label }), { kind: 'error' });
        return false;
      }
      preview.value = null;
      step(label, guarded(edit, args, label, done.before, done.after), choosing);
      return true;
    } catch (e) {
      if (!(e instanceof JobCancelled)) notices.fail(e);
      return false;
    }
  }

  return {
    history,
    preview,
    view,
    where,
    writable: saving.writable,
    saveState: saving.saveState,
    savedAt: saving.savedAt,
    project,
    ...choice,
    ...useTimeTravel({ history, preview, view, where, project }, saving),
    open: opening.open,
    close: opening.close,
    tryEdit,
    tryOn,
    apply,
    amend,
    applyInBackground,
    tryInBackground: background.tryInBackground,
    job: background.job,
    flush: saving.flush,
    settled: saving.settled,
    idle: () => saving.idle() && opening.idle(),
    lastSaveBytes: saving.lastBytes,
  };
});
