import { type Component, defineAsyncComponent, ref } from 'vue';

/**
 * Pieces that nobody can need in the first second (a list that opens, a tooltip, a menu) are fetched once the first picture
 * stands, so that it stands sooner. Until then a facade of the same size is seen in their place.
 */
let begin: () => void = () => undefined;
const firstPicture = new Promise<void>((done) => (begin = done));
let waiting = 0;
/** Whether the first picture stands. */
export const standing = ref(false);

/** Told by whatever shows first: the view, once it has drawn, or the shelf. */
export function firstPictureStands(): void {
  if (standing.value) return;
  standing.value = true;
  delete document.documentElement.dataset['first'];
  performance.mark('first picture');
  // What is drawn comes first; fetching would take its turns.
  requestIdleCallback(() => begin(), { timeout: 500 });
}
/** Whether everything that was wanted is there. */
export const allThere = (): boolean => waiting === 0;

/** Work that has time until the first picture stands. */
export async function afterFirstPicture(work: () => Promise<unknown>): Promise<void> {
  waiting++;
  try {
    await firstPicture;
    await work();
  } finally {
    waiting--;
  }
}
export function later<T extends Component>(load: () => Promise<{ default: T }>, facade?: Component): T {
  return defineAsyncComponent({
    loader: async () => {
      waiting++;
      try {
        await firstPicture;
        return await load();
      } finally {
        // Vue puts it in place before anything else is asked.
        setTimeout(() => waiting--);
      }
    },
    delay: 0,
    ...(facade ? { loadingComponent: facade } : {}),
  }) as unknown as T;
}
