import { type Box, type Vec3, mapVec } from '@sphalerite/core/math';
import type { Id, Project } from '@sphalerite/core/model';
import type { StrokeVerb } from '@sphalerite/core/sculpt';
import type { CellSet } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import * as z from 'zod';
import { onOtherProject, projectSetting } from '../../stores/project-settings';
import { useSession } from '../../stores/session';
import { useCutaway } from './state/cutaway';
import { useLiveSymmetry } from './state/live-symmetry';
import { useToolCards } from './state/tool-cards';

/** What is tinted in the view. */
export type Tint = 'none' | 'unpaired' | 'grain' | 'layer' | 'tidy' | 'silhouette';

/** Long work that can be stopped. */
export interface Job {
  readonly label: string;
  readonly progress: number;
  stop(): void;
}

/** A shape that waits to be set: its box can be given by numbers. */
export interface Waiting {
  readonly box: Box | null;
  hold(box: Box): void;
  set(): void;
}

/** Where the cells of strokes go while something else than cubes is painted. */
export interface StrokeTarget {
  /** What the chip in the view says of it. */
  readonly text: string;
  /** Whether it takes strokes of this verb; others go into the layer. */
  takes(verb: StrokeVerb): boolean;
  /** What it would give, for the view; null when nothing. */
  tryOut(cells: CellSet, verb: StrokeVerb): Project | null;
  take(cells: CellSet, verb: StrokeVerb): void;
}

/** What is in the artist's hand in Build, and how the part is looked at. */
export const useBuild = defineStore('build', () => {
  const session = useSession();
  const cutaway = useCutaway();
  /** The palette byte in hand. */
  const byte = ref(0);
  const isolate = ref(false);
  const seeThrough = ref(false);
  const tint = ref<Tint>('none');
  /** Strokes that reach out of the volume make it larger, in this project. */
  const growVolume = ref(false);
  /** So does the one in hand, alone. */
  const growOnce = ref(false);
  const grows = computed(() => growVolume.value || growOnce.value);
  const keepGrow = projectSetting('growVolume', z.boolean().catch(false), (on) => (growVolume.value = on));
  watch(growVolume, keepGrow);
  const stamp = ref<Id | null>(null);
  const job = shallowRef<Job | null>(null);
  const measuring = ref(false);
  const strokeTarget = shallowRef<StrokeTarget | null>(null);
  /** The shape that waits to be set, for the fields beside the tools; the screen's control keeps it. */
  const waiting = shallowRef<Waiting | null>(null);
  /** The keyboard cursor, null while it is put away. */
  const cursor = ref<Vec3 | null>(null);
  /** Lets a solid wait in the middle of the floor, for whoever would rather type than drag. */
  function holdByNumbers(): void {
    const part = session.part;
    if (!part) return;
    const { min, size: room } = cutaway.limit.value ?? part.bounds;
    // As large as the last, where there is room for it.
    const size = mapVec(room, (n, i) => Math.min(lastNumbers[i]!, n));
    waiting.value?.hold({
      min: [min[0] + ((room[0] - size[0]) >> 1), min[1], min[2] + ((room[2] - size[2]) >> 1)],
      size,
    });
  }
  let lastNumbers: Vec3 = [5, 5, 5];
  watch(waiting, (now) => (lastNumbers = now?.box?.size ?? lastNumbers));
  onOtherProject(() => (tint.value = 'none'));
  /** As it looks in the colourway in hand. */
  const palette = computed(() => session.look);
  const swatch = computed(
    () => palette.value?.swatches.find((s) => s.byte === byte.value) ?? palette.value?.swatches[0] ?? null,
  );
  return {
    byte,
    isolate,
    seeThrough,
    tint,
    growVolume,
    growOnce,
    grows,
    stamp,
    job,
    measuring,
    strokeTarget,
    waiting,
    holdByNumbers,
    cursor,
    palette,
    swatch,
    ...useToolCards(),
    ...useLiveSymmetry(),
    ...cutaway,
  };
});
