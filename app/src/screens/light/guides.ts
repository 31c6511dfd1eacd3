import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

/** What is drawn over pictures to judge them by. */
export const useGuides = defineStore('guides', () => ({
  /** Lines at thirds, and the frame that is safe on every screen. */
  thirds: ref(false),
  histogram: ref(true),
  /** Stripes where nothing is told apart any more. */
  zebra: ref(false),
  /** What of the picture is traced before the rest: left, top, width and height as shares of it. */
  region: shallowRef<readonly [number, number, number, number] | null>(null),
  /** Whether the next drag draws it. */
  regioning: ref(false),
  /** Whether drags over the picture turn the sun. */
  sunning: ref(false),
  /** Whether pictures are shown as they were before grading. */
  before: ref(false),
  /** Whether the next click says what is sharp. */
  focusing: ref(false),
}));
