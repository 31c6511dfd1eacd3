import { type Find, type Note, noteText } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { runCommand } from '../../stores/commands';
import { useArrivals } from '../../stores/arrivals';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { placeInHand } from '../../shell/files/place';
import { broughtIn } from '../../shell/files/project-files';
import { JobCancelled } from '../../workers/protocol';
import { goingHome } from './going-home';
import { withHow } from './kept-files';
import { latest } from './latest';
import { otherWays } from './other-ways';
import { wishes } from './wishes';

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
  const { options, wishAlso, keepFor, openWith, begin, forget } = wishes();
  /** The palette that takes the colours; null for one of their own. */
  const into = ref<string | null>(null);
  const made = shallowRef<MadeParts | null>(null);
  const again = computed(() => arrivals.waiting?.again?.part ?? null);
  const { namesakes, home, goesHome, put } = goingHome(made, into, again);
  const trouble = ref('');
  const file = computed(() => arrivals.waiting?.find.files[0] ?? null);
  /** What comes, as one would call it. */
  const title = computed(() => arrivals.waiting?.find.title ?? null);
  const names = new WeakMap<Find, string>();
  let named = 0,
    abort: AbortController | null = null;
  const { busy, again: make } = latest(makeOnce);

  async function makeOnce(): Promise<void> {
    const w = arrivals.waiting;
    if (!w) return;
    const mine = new AbortController();
    abort = mine;
    const from = performance.now();
    try {
      const input = {
        importer: w.importer,
        find: w.find,
        options: { ...options.value },
        place: placeInHand(),
        held: names.get(w.find)!,
      };
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

  const { use, add, asHeights } = otherWays({ made, title, keepFor, openWith });

  function wish(change: Readonly<Record<string, unknown>>): void {
    wishAlso(change);
    void make();
  }

  watch(
    () => arrivals.waiting,
    (w) => {
      abort?.abort();
      made.value = null;
      trouble.value = '';
      if (!w) {
        forget();
        return;
      }
      if (!names.has(w.find)) names.set(w.find, `file ${++named}`);
      begin(w);
      void make();
    },
    { immediate: true },
  );

  /** Goes on with what came along, or back to where one was. */
  function leave(): void {
    abort?.abort();
    const from = arrivals.waiting?.site ? 'go.stage' : 'go.build';
    if (!arrivals.next()) void runCommand(from).catch(notices.fail);
  }
  /** Puts what is shown into the project, as one step. */
  let taken: MadeParts | null = null;
  async function bring(): Promise<void> {
    const is = made.value,
      w = arrivals.waiting;
    // A second press while files are summed must not bring it twice.
    if (!is || !w || busy.value || taken === is) return;
    taken = is;
    const { notes } = is;
    const project = await withHow(is.project, w, options.value);
    if (made.value !== is) return;
    const before = new Set(session.project?.parts.map((p) => p.id));
    if (!put({ ...is, project }, w.site)) {
      taken = null;
      return;
    }
    const first = session.project?.parts.find((p) => !before.has(p.id));
    if (first) session.choose({ part: first.id });
    if (notes.length > 0) notices.say(notes.map(noteText).join(' '));
    leave();
  }
  return {
    options,
    into,
    made,
    namesakes,
    home,
    goesHome,
    again,
    trouble,
    busy,
    file,
    title,
    waiting: computed(() => arrivals.waiting),
    wish,
    use,
    add,
    asHeights,
    bring,
    leave,
  };
});
