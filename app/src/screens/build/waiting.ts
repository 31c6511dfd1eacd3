import type { Box } from '@sphalerite/core/math';
import { shallowRef } from 'vue';

/** The shape that waits to be set, for the fields beside the tools; the screen's control keeps it. */
export interface Waiting {
  readonly box: Box | null;
  hold(box: Box): void;
  set(): void;
}
export const waiting = shallowRef<Waiting | null>(null);
