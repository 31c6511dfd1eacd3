import { type GivenFile, importerOf } from '@sphalerite/core/files';
import type { Ref } from 'vue';
import { useArrivals } from '../../stores/arrivals';
import { asHeights as heightsOf } from './as-heights';
import type { MadeParts } from './bring-state';
import type { wishes } from './wishes';

interface Hand extends Pick<ReturnType<typeof wishes>, 'keepFor' | 'openWith'> {
  readonly made: Ref<MadeParts | null>;
  readonly title: Ref<string | null>;
}

/** What else can become of what waits. */
export function otherWays({ made, title, keepFor, openWith }: Hand) {
  const arrivals = useArrivals();
  /** Brings the same in another way. */
  function use(importer: string): void {
    const w = arrivals.waiting;
    if (!w || importer === w.importer) return;
    // What needs no file is called as what it makes.
    const find = w.find.files.length === 0 ? importerOf(importer)!.inspect([])[0]! : w.find;
    arrivals.waiting = { ...w, importer, find };
  }
  /** Takes a second file beside the first, with the wishes as they are but for what it changes. */
  function add(second: GivenFile, change: Readonly<Record<string, unknown>>): void {
    const w = arrivals.waiting;
    if (!w) return;
    keepFor(w.importer, change);
    arrivals.waiting = { ...w, find: { ...w.find, files: [w.find.files[0]!, second] } };
  }

  /** What is made up goes on as pictures of heights and colours, with the wishes that bring it back as it is. */
  function asHeights(): void {
    const w = arrivals.waiting,
      is = made.value;
    if (!w || !is) return;
    const { arrival, wishes: as } = heightsOf(is.project, title.value ?? '');
    openWith(arrival.importer, as);
    arrivals.waiting = arrival;
  }
  return { use, add, asHeights };
}
