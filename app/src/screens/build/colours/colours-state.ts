import { type Vec3, sub } from '@sphalerite/core/math';
import { type Project, inColourway } from '@sphalerite/core/model';
import type { Palette, Swatch } from '@sphalerite/core/palette';
import { paletteUse, partUse } from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { getSetting, putSetting } from '../../../storage/settings-store';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import type { SceneCopy } from '../../../viewport/viewport';
import { useBuild } from '../build-state';
import { extentOf } from '../target-meter';

export const TABS = ['part', 'colours', 'finish', 'apart'] as const;
export type Tab = (typeof TABS)[number];

/** A choice about swatches that is being made, with its counts, before anything changes. */
export type Task =
  | { readonly kind: 'delete'; readonly bytes: readonly number[] }
  | { readonly kind: 'replace'; readonly bytes: readonly number[] }
  /** Other swatches to append, or to put in the palette's place. */
  | { readonly kind: 'palette'; readonly name: string; readonly swatches: readonly Swatch[] };

/** One look of the whole project, as it stands beside the others. */
export interface Look {
  readonly id: string | null;
  readonly name: string;
  readonly shift: Vec3;
  readonly inHand: boolean;
}

const KEPT = 10;

/** What is in hand while colouring: picked swatches, the looks side by side, and who uses what. */
export const useColours = defineStore('colours', () => {
  const session = useSession();
  const build = useBuild();
  const view = useView();
  const tab = ref<Tab>('part');
  /** Swatches picked beside the one in hand, in the order in which they were; a ramp is made of them. */
  const picked = ref<readonly number[]>([]);
  const last = ref<readonly number[]>([]);
  const sideBySide = ref(false);
  const task = shallowRef<Task | null>(null);
  /** A palette to look at beside the one there is: what each byte would look like. */
  const compare = shallowRef<readonly Swatch[] | null>(null);
  const palette = computed(() => session.palette);

  const swatchOf = (byte: number): Swatch | undefined => build.palette?.swatches.find((s) => s.byte === byte);
  /** What a command means: the picked swatches, or the one in hand. */
  const meant = computed<readonly number[]>(() =>
    picked.value.length > 0 ? picked.value : build.swatch ? [build.swatch.byte] : [],
  );

  function take(byte: number, how: 'hand' | 'add' | 'range' = 'hand'): void {
    const list = build.palette?.swatches.map((s) => s.byte) ?? [];
    if (how === 'hand') picked.value = [];
    else if (how === 'add') {
      const from =
        picked.value.length > 0 ? picked.value : build.swatch && build.swatch.byte !== byte ? [build.swatch.byte] : [];
      picked.value = from.includes(byte) ? from.filter((b) => b !== byte) : [...from, byte];
      return;
    } else {
      const a = list.indexOf(build.swatch?.byte ?? byte),
        b = list.indexOf(byte);
      const range = list.slice(Math.min(a, b), Math.max(a, b) + 1);
      picked.value = a <= b ? range : range.reverse();
      return;
    }
    build.byte = byte;
  }

  // The bytes painted with last, for each project.
  let loadedFor = '';
  watch(
    () => session.project?.id,
    async (id) => {
      if (!id || id === loadedFor) return;
      loadedFor = id;
      picked.value = [];
      task.value = compare.value = null;
      sideBySide.value = false;
      const stored = await getSetting<number[]>(`last swatches ${id}`, []);
      if (loadedFor === id) last.value = stored;
    },
    { immediate: true },
  );
  watch(
    () => session.project?.parts,
    (parts, before) => {
      const byte = build.swatch?.byte;
      if (!parts || !before || !byte || last.value[0] === byte) return;
      last.value = [byte, ...last.value.filter((b) => b !== byte)].slice(0, KEPT);
      if (loadedFor) void putSetting(`last swatches ${loadedFor}`, [...last.value]);
    },
  );
  watch(
    () => palette.value,
    (p) => {
      const there = new Set(p?.swatches.map((s) => s.byte));
      if (picked.value.some((b) => !there.has(b))) picked.value = picked.value.filter((b) => there.has(b));
      if (task.value && task.value.kind !== 'palette' && task.value.bytes.some((b) => !there.has(b))) task.value = null;
    },
  );

  /** Who uses which swatch, counted when the hand rests. */
  const use = shallowRef<ReturnType<typeof paletteUse> | null>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const count = (): void => {
    const p = session.project,
      id = palette.value?.id;
    use.value = p && id ? paletteUse(p, id) : null;
  };
  watch(
    [() => session.project, () => palette.value?.id],
    () => {
      clearTimeout(timer);
      timer = setTimeout(count, use.value ? 350 : 60);
    },
    { immediate: true },
  );
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

  /** All looks from left to right; the one in hand stands where the work is, the others are shifted. */
  const looks = computed<Look[]>(() => {
    const p = session.undressed;
    if (!p || (!sideBySide.value && !compare.value)) return [];
    const e = extentOf(session.project ?? p);
    // In a row across the view, whichever way it looked when they were set out.
    const [dx, dz] = across.value;
    const step = e
      ? Math.ceil(((e.hi[0] - e.lo[0]) * Math.abs(dx) + (e.hi[2] - e.lo[2]) * Math.abs(dz)) * 1.06 + 2)
      : 20;
    const at = (k: number): Vec3 => [k * step * dx, 0, k * step * dz];
    if (compare.value)
      return [
        { id: session.view.colourway, name: 'before', shift: at(0), inHand: true },
        { id: 'compare', name: 'after', shift: at(1), inHand: false },
      ];
    const ids = [null, ...p.colourways.map((c) => c.id)];
    const here = Math.max(0, ids.indexOf(session.view.colourway));
    return ids.map((id, i) => ({
      id,
      name: p.colourways.find((c) => c.id === id)?.name ?? 'Palette',
      shift: at(i - here),
      inHand: i === here,
    }));
  });
  /** The copies that are drawn beside the project. */
  function copiesOf(p: Project): SceneCopy[] {
    return looks.value
      .filter((l) => !l.inHand)
      .map((l) => ({ shift: l.shift, palettes: l.id === 'compare' ? compared(p) : inColourway(p, l.id).palettes }));
  }
  function compared(p: Project): readonly Palette[] {
    return p.palettes.map((o) => (o.id === palette.value?.id && compare.value ? { ...o, swatches: compare.value } : o));
  }
  /** Takes a colourway in hand; side by side, the view goes along so that nothing seems to move. */
  function activate(id: string | null): void {
    const there = looks.value.find((l) => l.id === id);
    session.choose({ colourway: id });
    const v = view.viewport;
    if (there && v && sideBySide.value) {
      v.camera.target = sub(v.camera.target, there.shift);
      v.invalidate();
    }
  }
  /** The way across the view, level, as a direction of X and Z. */
  const across = shallowRef<readonly [number, number]>([1, 0]);
  watch(
    () => sideBySide.value || compare.value !== null,
    (on) => {
      const right = view.viewport?.camera.right;
      if (on && right) {
        const n = Math.hypot(right[0], right[2]) || 1;
        across.value = [right[0] / n, right[2] / n];
      }
      requestAnimationFrame(() => view.viewport?.frameParts());
    },
    { flush: 'sync' },
  );

  return {
    tab,
    picked,
    last,
    most,
    sideBySide,
    task,
    compare,
    meant,
    use,
    inPart,
    looks,
    swatchOf,
    take,
    count,
    copiesOf,
    activate,
  };
});
