import type { Palette } from '@sphalerite/core/palette';
import { paletteUse, partUse } from '@sphalerite/core/project';
import { type ComputedRef, computed, shallowRef, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { KEPT } from './swatches-in-hand';

/** Milliseconds for which the hand must rest before swatches are counted: the first time, and again. */
const FIRST_REST = 60;
const REST = 350;

/** Who uses which swatch, counted when the hand rests. */
export function useSwatchUse(palette: ComputedRef<Palette | null>) {
  const session = useSession();
  const use = shallowRef<ReturnType<typeof paletteUse> | null>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;
  function count(): void {
    const p = session.project,
      id = palette.value?.id;
    use.value = p && id ? paletteUse(p, id) : null;
  }
  watch(
    [() => session.project, () => palette.value?.id],
    () => {
      clearTimeout(timer);
      timer = setTimeout(count, use.value ? REST : FIRST_REST);
    },
    { immediate: true },
  );
  /** The swatches that most cubes have. */
  const most = computed(() => {
    const totals = use.value?.total;
    if (!totals) return [];
    return (palette.value?.swatches ?? [])
      .filter((s) => totals[s.byte]! > 0)
      .sort((a, b) => totals[b.byte]! - totals[a.byte]!)
      .slice(0, KEPT)
      .map((s) => s.byte);
  });
  const inPart = computed(() => (session.part ? partUse(session.part) : null));
  return { use, most, inPart, count };
}
