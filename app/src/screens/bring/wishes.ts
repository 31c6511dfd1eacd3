import { importerOf } from '@sphalerite/core/files';
import { ref } from 'vue';
import type { Arrival } from '../../stores/arrivals';

type Wishes = Readonly<Record<string, unknown>>;

const fresh = (importer: string): Wishes => importerOf(importer)!.options.parse({}) as Wishes;

/** How something is to come in, as the importer's schema has it; wishes go on from one thing to the next of its kind. */
export function wishes() {
  const options = ref<Wishes>({});
  /** The way in that they are for. */
  let last: string | null = null;
  /** Wishes that go on with another file. */
  let kept: { readonly importer: string; readonly options: Wishes } | null = null;
  /** What is made again and was opened with its own wishes already. */
  const opened = new WeakSet<object>();
  const wishAlso = (change: Wishes): void => void (options.value = { ...options.value, ...change });
  /** What comes next is wished as what is here, but for a change. */
  const keepFor = (importer: string, change: Wishes): void => openWith(importer, { ...options.value, ...change });
  /** What comes next is wished so; fields that are not said are as they are at first. */
  const openWith = (importer: string, said: Wishes): void =>
    void (kept = { importer, options: importerOf(importer)!.options.parse(said) as Wishes });

  /** Settles them for what is brought in from now on. */
  function begin({ importer, again }: Arrival): void {
    if (kept?.importer === importer) options.value = kept.options;
    else if (again && !opened.has(again)) options.value = again.options;
    else if (last !== importer) options.value = fresh(importer);
    if (again) opened.add(again);
    last = importer;
    kept = null;
  }
  const forget = (): void => void (last = null);
  return { options, wishAlso, keepFor, openWith, begin, forget };
}
