import {
  type Edit,
  type History,
  EditError,
  apply as applyEdit,
  canRedo,
  canUndo,
  current,
  editContext,
  jump,
  record,
} from '@sphalerite/core/project';
import {
  type Bone,
  type Clip,
  type Layer,
  type Part,
  type Project,
  type Shot,
  find,
  inColourway,
} from '@sphalerite/core/model';
import type { Palette } from '@sphalerite/core/palette';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { Autosaver, type SaveState } from '../storage/autosave';
import { type Hold, holdProject } from '../storage/lock';
import { ProjectWriter, TakenOverError, sweep } from '../storage/project-store';
import { freshId, setThumbnail } from '../storage/shelf';
import { editInBackground } from '../workers/background-edit';
import { sharedPool } from '../workers/pool';
import { JobCancelled } from '../workers/protocol';
import { projectPicture } from '../workers/thumbnails';
import { runCommand } from './commands';
import { useNotices } from './notices';
import { EMPTY_VIEW, type ViewState } from '../storage/view-state';

/** The project on the bench: its history, what is selected in it, and its saving. */
export const useSession = defineStore('session', () => {
  const notices = useNotices();
  const history = shallowRef<History<ViewState> | null>(null);
  /** What a tool in motion shows instead of the project; never saved. */
  const preview = shallowRef<Project | null>(null);
  const view = ref<ViewState>(EMPTY_VIEW);
  const where = ref('');
  const writable = ref(false);
  const saveState = ref<SaveState>('saved');
  const savedAt = ref(0);
  let writer: ProjectWriter | null = null;
  let saver: Autosaver | null = null;
  let hold: Hold | null = null;
  let pictureTimer: ReturnType<typeof setTimeout> | undefined;

  const project = computed<Project | null>(() => (history.value ? current(history.value) : null));
  /** What is shown, before a colourway dresses it. */
  const undressed = computed<Project | null>(() => preview.value ?? project.value);
  const shown = computed<Project | null>(() => undressed.value && inColourway(undressed.value, view.value.colourway));
  /** The project in the colourway in hand. */
  const worn = computed<Project | null>(() => project.value && inColourway(project.value, view.value.colourway));
  const part = computed<Part | null>(() => find(project.value?.parts ?? [], view.value.part) ?? null);
  const layer = computed<Layer | null>(
    () => find(part.value?.layers ?? [], view.value.layer) ?? part.value?.layers.at(-1) ?? null,
  );
  const bone = computed<Bone | null>(() => find(project.value?.rig.bones ?? [], view.value.bone) ?? null);
  const clip = computed<Clip | null>(() => find(project.value?.clips ?? [], view.value.clip) ?? null);
  const shot = computed<Shot | null>(() => find(project.value?.shots ?? [], view.value.shot) ?? null);
  const palette = computed<Palette | null>(() => {
    const p = project.value;
    return p ? (find(p.palettes, part.value?.palette ?? null) ?? p.palettes[0] ?? null) : null;
  });
  /** That palette as it looks in the colourway in hand. */
  const look = computed<Palette | null>(
    () => find(worn.value?.palettes ?? [], palette.value?.id ?? null) ?? palette.value,
  );

  async function open(id: string, take = false): Promise<void> {
    await close();
    const opened = await holdProject(id, take, () => lost());
    try {
      writer = new ProjectWriter(id, opened.epoch);
      const loaded = await writer.load();
      hold = opened;
      writable.value = opened.writable;
      saver = new Autosaver(writer, onSave);
      saveState.value = 'saved';
      savedAt.value = loaded.entries[loaded.now]!.at;
      history.value = loaded;
      view.value = repaired(loaded.entries[loaded.now]!.viewAfter);
      if (opened.writable) whenIdle(() => void sweep(id).catch(() => undefined));
    } catch (e) {
      opened.release();
      throw e;
    }
  }

  async function close(): Promise<void> {
    await saver?.flush();
    saver?.stop();
    hold?.release();
    saver = null;
    hold = null;
    writer = null;
    preview.value = null;
    history.value = null;
    view.value = EMPTY_VIEW;
  }

  function lost(): void {
    writable.value = false;
    saver?.stop();
    notices.say(new TakenOverError().message, { kind: 'error' });
  }

  function onSave(state: SaveState, error?: Error): void {
    saveState.value = state;
    if (state === 'saved') {
      savedAt.value = Date.now();
      if (project.value) pictureSoon(project.value);
    }
    if (!error) return;
    if (error instanceof TakenOverError) lost();
    else if (error.name === 'QuotaExceededError' || /quota/i.test(error.message)) {
      notices.say(
        'The browser has no room left to save in. Your work is still open here: export the project file now, then make room.',
        { kind: 'error' },
      );
    } else
      notices.say(
        `Saving failed: ${error.message} Your work is still open here; it will be tried again with the next change.`,
        { kind: 'error' },
      );
  }

  /** The picture for the shelf follows a little after the work. */
  function pictureSoon(p: Project): void {
    clearTimeout(pictureTimer);
    pictureTimer = setTimeout(() => {
      void projectPicture(p)
        .then((blob) => setThumbnail(p.id, blob))
        .catch(() => undefined);
    }, 2000);
  }

  /** Ids of the view that still exist; a part is always chosen where there is one. */
  function repaired(v: ViewState): ViewState {
    const p = project.value;
    if (!p) return EMPTY_VIEW;
    const keep = (list: readonly { id: string }[], id: string | null, first = true): string | null =>
      find(list, id)?.id ?? (first ? (list[0]?.id ?? null) : null);
    return {
      part: keep(p.parts, v.part),
      layer: v.layer,
      bone: keep(p.rig.bones, v.bone, false),
      clip: keep(p.clips, v.clip),
      shot: keep(p.shots, v.shot),
      colourway: keep(p.colourways, v.colourway ?? null, false),
    };
  }

  const choose = (change: Partial<ViewState>): void => {
    view.value = { ...view.value, ...change };
  };

  function setHistory(next: History<ViewState>): void {
    history.value = next;
    view.value = repaired(view.value);
    saver?.changed(next);
  }

  /** What an edit would give, or null with the reason said. */
  function tryEdit<A>(edit: Edit<A>, args: A, quiet = false): Project | null {
    const p = project.value;
    if (!p) return null;
    try {
      return applyEdit(p, edit, args, editContext(freshId(), Date.now()));
    } catch (e) {
      if (!(e instanceof EditError)) throw e;
      if (!quiet) notices.say(e.message, { kind: 'error' });
      return null;
    }
  }

  /** What an edit would give on a project that is only shown, or null. */
  function tryOn<A>(p: Project, edit: Edit<A>, args: A): Project | null {
    try {
      return applyEdit(p, edit, args, editContext(freshId(), Date.now()));
    } catch (e) {
      if (!(e instanceof EditError)) throw e;
      return null;
    }
  }

  /** Applies an edit as one step of the history. Gives whether anything changed. */
  function apply<A>(edit: Edit<A>, args: A, choosing?: (after: Project) => Partial<ViewState>): boolean {
    preview.value = null;
    const before = project.value;
    if (!before || !history.value) return false;
    if (!writable.value) {
      notices.say('This project is open for looking only. Take it over to change it.', { kind: 'error' });
      return false;
    }
    const label = edit.label(args, before);
    const after = tryEdit(edit, args);
    if (!after || after === before) return false;
    const viewBefore = view.value;
    const viewAfter = choosing ? { ...viewBefore, ...choosing(after) } : viewBefore;
    view.value = viewAfter;
    setHistory(
      record(history.value, { label, at: Date.now(), where: where.value, project: after, viewBefore, viewAfter }),
    );
    return true;
  }

  /** Long work on the project that is under way in the background. */
  const job = shallowRef<{ readonly label: string; stop(): void } | null>(null);
  /** {@link apply} for edits of parts that would hold the page up: in a worker, dropped when stopped or overtaken. */
  async function applyInBackground<A>(
    edit: Edit<A>,
    args: A,
    parts: string | readonly string[],
    choosing?: (after: Project) => Partial<ViewState>,
  ): Promise<boolean> {
    const before = project.value;
    if (!before || !history.value || !writable.value || job.value) return false;
    const label = edit.label(args, before);
    const stop = new AbortController();
    const stopped = new Promise<never>((_resolve, reject) =>
      stop.signal.addEventListener('abort', () => reject(new JobCancelled())),
    );
    job.value = { label, stop: () => stop.abort() };
    try {
      const after = await Promise.race([
        editInBackground(
          sharedPool(),
          before,
          typeof parts === 'string' ? [parts] : parts,
          edit,
          args,
          freshId(),
          Date.now(),
        ),
        stopped,
      ]);
      if (project.value !== before) {
        notices.say(`The project has changed meanwhile; “${label}” was let go. Try again.`, { kind: 'error' });
        return false;
      }
      preview.value = null;
      const viewBefore = view.value;
      if (choosing) view.value = { ...viewBefore, ...choosing(after) };
      setHistory(
        record(history.value, {
          label,
          at: Date.now(),
          where: where.value,
          project: after,
          viewBefore,
          viewAfter: view.value,
        }),
      );
      return true;
    } catch (e) {
      if (!(e instanceof JobCancelled)) notices.fail(e);
      return false;
    } finally {
      job.value = null;
    }
  }

  /** What an edit of parts would give, worked out in a worker; null when it was stopped or refused. */
  async function tryInBackground<A>(
    edit: Edit<A>,
    args: A,
    parts: readonly string[],
    signal: AbortSignal,
  ): Promise<Project | null> {
    const before = project.value;
    if (!before) return null;
    try {
      const after = await editInBackground(sharedPool(), before, parts, edit, args, freshId(), Date.now(), signal);
      return project.value === before && !signal.aborted ? after : null;
    } catch (e) {
      if (e instanceof JobCancelled || signal.aborted || (e as Error).name === 'EditError') return null;
      throw e;
    }
  }

  function moveTo(index: number): void {
    const h = history.value;
    if (!h || !writable.value) return;
    preview.value = null;
    const next = jump(h, index);
    if (next === h) return;
    const back = index < h.now;
    const step = h.entries[back ? index + 1 : index]!;
    history.value = next;
    const wanted = back ? step.viewBefore : step.viewAfter;
    view.value = repaired(wanted);
    saver?.changed(next);
    const elsewhere = step.where !== '' && step.where !== where.value;
    // The screen never changes by surprise; it is offered.
    notices.say(
      `${back ? 'Undid' : 'Did again'}: ${step.label}${elsewhere ? ` (in ${step.where})` : ''}`,
      elsewhere
        ? {
            action: { label: 'Show', run: () => void runCommand(`go.${step.where.toLowerCase()}`).catch(notices.fail) },
          }
        : {},
    );
  }
  /** Something that hangs in the air is put away first; gives whether there was such a thing. */
  let interrupt: (() => boolean) | null = null;
  const onInterrupt = (f: (() => boolean) | null): void => void (interrupt = f);
  const undo = (): void => {
    if (!interrupt?.()) moveTo((history.value?.now ?? 0) - 1);
  };
  const redo = (): void => {
    interrupt?.();
    moveTo((history.value?.now ?? 0) + 1);
  };

  return {
    history,
    preview,
    view,
    where,
    writable,
    saveState,
    savedAt,
    project,
    undressed,
    shown,
    worn,
    part,
    layer,
    bone,
    clip,
    shot,
    palette,
    look,
    canUndo: computed(() => history.value !== null && canUndo(history.value)),
    canRedo: computed(() => history.value !== null && canRedo(history.value)),
    open,
    close,
    choose,
    tryEdit,
    tryOn,
    apply,
    applyInBackground,
    tryInBackground,
    job,
    onInterrupt,
    moveTo,
    undo,
    redo,
    flush: async () => saver?.flush(),
    idle: () => saver?.idle ?? true,
    lastSaveBytes: () => saver?.lastBytes ?? 0,
  };
});

const whenIdle = (work: () => void): void => {
  if ('requestIdleCallback' in window) requestIdleCallback(work, { timeout: 5000 });
  else setTimeout(work, 1500);
};
