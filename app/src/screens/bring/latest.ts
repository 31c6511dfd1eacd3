import { type Ref, ref } from 'vue';

/** Runs something again and again, of which the last wish counts: while one is under way, those that come wait together. */
export function latest(run: () => Promise<void>): { readonly busy: Ref<boolean>; again(): Promise<void> } {
  const busy = ref(false);
  let waits = false;
  async function again(): Promise<void> {
    if (busy.value) {
      waits = true;
      return;
    }
    busy.value = true;
    try {
      do {
        waits = false;
        await run();
      } while (waits);
    } finally {
      busy.value = false;
    }
  }
  return { busy, again };
}
