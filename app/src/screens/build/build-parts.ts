import type { ShallowRef } from 'vue';
import type { useApart } from './apart/apart-state';
import type { BuildHand } from './build-hand';
import type { GradientControl } from './colours/gradient-control';
import type { handlesControl } from './handles/handles-control';
import type { usePartMatrix } from './picking';
import type { strokeControl } from './strokes/stroke-control';
import type { useTints } from './tints';

/** What the Build screen is put together from. */
export interface BuildParts {
  readonly matrix: ReturnType<typeof usePartMatrix>;
  readonly strokes: ReturnType<typeof strokeControl>;
  readonly handles: ReturnType<typeof handlesControl>;
  readonly tints: ReturnType<typeof useTints>;
  readonly hand: BuildHand;
  /** Come when their tabs are first opened. */
  readonly gradient: ShallowRef<GradientControl | null>;
  readonly apart: ShallowRef<ReturnType<typeof useApart> | null>;
}
