import type { Id, Placement } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import type { ShelvedStamp } from '../../stores/stamp-shelf';
import { onOtherProject } from '../../stores/project-settings';

export interface PageFrame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What is placed with the next click, and how handles work on what stands in the scene. */
export const useStage = defineStore('stage', () => {
  const handle = ref<'move' | 'turn' | 'scale' | 'frame'>('move');
  /** What things are moved by, in project units; 0 for any length. */
  const step = ref<1 | 0.5 | 0>(1);
  /** Degrees that rings turn by. */
  const turn = ref<15 | 90 | 1>(15);
  /** What a click on the view puts down; null while clicks choose. */
  const placing = shallowRef<Placement['shows'] | null>(null);
  /** The stamp that a click puts down. */
  const stamp = shallowRef<ShelvedStamp | null>(null);
  /** What the palette shows. */
  const palette = ref<'pieces' | 'stamps' | 'projects'>('pieces');
  /** The copy of a repeat that is in hand by itself, while its placement is. */
  const copy = shallowRef<{ readonly placement: Id; readonly copy: number } | null>(null);
  /** The frame that is drawn around what shall be chosen, in pixels of the page. */
  const drawnFrame = shallowRef<PageFrame | null>(null);
  /** The scene that was framed when it was first looked at. */
  const framed = ref<Id | null>(null);
  /** Whether lamps are marked in the view; the one in hand always is. */
  const lamps = ref(false);
  /** Whether what is pushed is caught by edges and middles around it. */
  const snaps = ref(true);
  /** Whether what is pushed stands on, or against, what is under the hand. */
  const onto = ref(false);
  /** Whether several turn and grow about the one in hand, or each about its own origin. */
  const together = ref(true);
  /** Only this layer is seen; null for all. */
  const alone = ref<string | null>(null);
  onOtherProject(() => {
    placing.value = null;
    copy.value = null;
    stamp.value = null;
    alone.value = null;
  });
  return { stamp, palette, handle, step, turn, placing, copy, drawnFrame, framed, lamps, snaps, onto, together, alone };
});
