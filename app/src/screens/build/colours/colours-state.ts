import type { Swatch } from '@sphalerite/core/palette';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useArrivals } from '../../../stores/arrivals';
import { onOtherProject } from '../../../stores/project-settings';
import { useSession } from '../../../stores/session';
import { useLooks } from './looks';
import { useSwatchUse } from './swatch-use';
import { useSwatchesInHand } from './swatches-in-hand';

export const TABS = ['part', 'colours', 'finish', 'apart'] as const;
export type Tab = (typeof TABS)[number];

/** A choice about swatches that is being made, with its counts, before anything changes. */
export type Task =
  | { readonly kind: 'delete'; readonly bytes: readonly number[] }
  | { readonly kind: 'replace'; readonly bytes: readonly number[] }
  /** Other swatches to append, or to put in the palette's place. */
  | { readonly kind: 'palette'; readonly name: string; readonly swatches: readonly Swatch[] };

/** What is in hand while colouring: picked swatches, the looks side by side, and who uses what. */
export const useColours = defineStore('colours', () => {
  const session = useSession();
  const arrivals = useArrivals();
  const tab = ref<Tab>('part');
  const task = shallowRef<Task | null>(null);
  const palette = computed(() => session.palette);
  onOtherProject(() => (task.value = null));
  // Colours that came in as a file wait until this is looked at.
  watch(
    () => arrivals.palette,
    (p) => {
      if (!p) return;
      arrivals.palette = null;
      tab.value = 'colours';
      task.value = { kind: 'palette', ...p };
    },
    { immediate: true },
  );
  watch(palette, (p) => {
    const there = new Set(p?.swatches.map((s) => s.byte));
    if (task.value && task.value.kind !== 'palette' && task.value.bytes.some((b) => !there.has(b))) task.value = null;
  });
  return { tab, task, ...useSwatchesInHand(palette), ...useSwatchUse(palette), ...useLooks(palette) };
});
