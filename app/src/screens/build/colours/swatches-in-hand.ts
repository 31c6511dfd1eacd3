import type { Palette, Swatch } from '@sphalerite/core/palette';
import { type ComputedRef, computed, ref, watch } from 'vue';
import * as z from 'zod';
import { onOtherProject, projectSetting } from '../../../stores/project-settings';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';

const lastSchema = z.array(z.int().min(1).max(255)).catch([]);
/** Swatches that are remembered as used last, and shown as used most. */
export const KEPT = 10;

/** The swatch in hand, those picked beside it, and those painted with last. */
export function useSwatchesInHand(palette: ComputedRef<Palette | null>) {
  const session = useSession();
  const build = useBuild();
  /** Swatches picked beside the one in hand, in the order in which they were; a ramp is made of them. */
  const picked = ref<readonly number[]>([]);
  const last = ref<readonly number[]>([]);
  const swatchOf = (byte: number): Swatch | undefined => build.palette?.swatches.find((s) => s.byte === byte);
  /** What a command means: the picked swatches, or the one in hand. */
  const meant = computed<readonly number[]>(() =>
    picked.value.length > 0 ? picked.value : build.swatch ? [build.swatch.byte] : [],
  );

  /** All from the swatch in hand to this one, in the order of the palette. */
  function range(to: number): number[] {
    const list = build.palette?.swatches.map((s) => s.byte) ?? [];
    const a = list.indexOf(build.swatch?.byte ?? to),
      b = list.indexOf(to);
    const found = list.slice(Math.min(a, b), Math.max(a, b) + 1);
    return a <= b ? found : found.reverse();
  }
  /** Adds a swatch to the picked ones, or takes it out; the one in hand counts as the first. */
  function toggled(byte: number): readonly number[] {
    const hand = build.swatch && build.swatch.byte !== byte ? [build.swatch.byte] : [];
    const from = picked.value.length > 0 ? picked.value : hand;
    return from.includes(byte) ? from.filter((b) => b !== byte) : [...from, byte];
  }
  function take(byte: number, how: 'hand' | 'add' | 'range' = 'hand'): void {
    picked.value = how === 'hand' ? [] : how === 'add' ? toggled(byte) : range(byte);
    if (how === 'hand') build.byte = byte;
  }

  onOtherProject(() => (picked.value = []));
  const keep = projectSetting('last swatches', lastSchema, (stored) => (last.value = stored));
  watch(
    () => session.project?.parts,
    (parts, before) => {
      const byte = build.swatch?.byte;
      if (!parts || !before || !byte || last.value[0] === byte) return;
      last.value = [byte, ...last.value.filter((b) => b !== byte)].slice(0, KEPT);
      keep([...last.value]);
    },
  );
  watch(palette, (p) => {
    const there = new Set(p?.swatches.map((s) => s.byte));
    if (picked.value.some((b) => !there.has(b))) picked.value = picked.value.filter((b) => there.has(b));
  });
  return { picked, last, meant, swatchOf, take };
}
