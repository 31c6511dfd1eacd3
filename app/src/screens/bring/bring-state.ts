import { type Note, importerOf, noteText } from '@sphalerite/core/files';
import type { PictureOptions } from '@sphalerite/core/intake';
import type { Project } from '@sphalerite/core/model';
import { bringPartsEdit } from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { runCommand } from '../../stores/commands';
import { useArrivals } from '../../stores/arrivals';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { placeInHand } from '../../shell/files/place';
import { broughtIn } from '../../shell/files/project-files';
import { JobCancelled } from '../../workers/protocol';

/** What came of the file as it is wished now. */
export interface MadeParts {
  readonly project: Project;
  readonly facts: Readonly<Record<string, readonly number[]>>;
  readonly notes: readonly Note[];
  /** Milliseconds that it took. */
  readonly took: number;
}

/** What is being brought in, and how; made anew in a worker with every wish. */
export const useBringing = defineStore('bringing', () => {
  const arrivals = useArrivals();
  const session = useSession();
  const notices = useNotices();
  const options = ref<PictureOptions>(null as unknown as PictureOptions);
  /** The palette that takes the colours; null for one of their own. */
  const into = ref<string | null>(null);
  const made = shallowRef<MadeParts | null>(null);
  const trouble = ref('');
  const busy = ref(false);
  const file = computed(() => arrivals.waiting?.find.files[0] ?? null);
  let names = 0,
    held = '',
    abort: AbortController | null = null,
    again = false;

  watch(
    () => arrivals.waiting,
    (w) => {
      abort?.abort();
      made.value = null;
      trouble.value = '';
      if (!w) return;
      held = `file ${++names}`;
      options.value = importerOf(w.importer)!.options.parse({}) as PictureOptions;
      into.value = null;
      void make();
    },
    { immediate: true },
  );

  /** The last wish counts: while one is being made, the next ones wait together. */
  async function make(): Promise<void> {
    if (busy.value) {
      again = true;
      return;
    }
    busy.value = true;
    try {
      do {
        again = false;
        await makeOnce();
      } while (again);
    } finally {
      busy.value = false;
    }
  }
  async function makeOnce(): Promise<void> {
    const w = arrivals.waiting;
    if (!w) return;
    const mine = new AbortController();
    abort = mine;
    const from = performance.now();
    try {
      const input = { importer: w.importer, find: w.find, options: { ...options.value }, place: placeInHand(), held };
      const { brought, notes } = await broughtIn(input, mine.signal);
      if (brought.kind !== 'parts' || arrivals.waiting !== w) return;
      made.value = { project: brought.project, facts: brought.facts, notes, took: performance.now() - from };
      trouble.value = '';
    } catch (e) {
      if (e instanceof JobCancelled || arrivals.waiting !== w) return;
      made.value = null;
      trouble.value = (e as Error).message;
    }
  }

  function wish(change: Partial<PictureOptions>): void {
    options.value = { ...options.value, ...change };
    void make();
  }

  function leave(): void {
    abort?.abort();
    arrivals.waiting = null;
    void runCommand('go.build').catch(notices.fail);
  }
  /** Puts what is shown into the project, as one step. */
  function bring(): void {
    if (!made.value || busy.value) return;
    const { project, notes } = made.value;
    const before = new Set(session.project?.parts.map((p) => p.id));
    if (!session.apply(bringPartsEdit, { source: project, into: into.value })) return;
    const first = session.project?.parts.find((p) => !before.has(p.id));
    if (first) session.choose({ part: first.id });
    if (notes.length > 0) notices.say(notes.map(noteText).join(' '));
    leave();
  }
  return { options, into, made, trouble, busy, file, wish, bring, leave };
});
