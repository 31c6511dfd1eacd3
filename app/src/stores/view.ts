import { type Pose, REST_POSE } from '@sphalerite/core/rig';
import type { Axis, Extent } from '@sphalerite/core/math';
import { defineStore } from 'pinia';
import { markRaw, ref, shallowRef } from 'vue';
import type { Viewport } from '../viewport/viewport';

export interface DragAxes {
  readonly on: readonly boolean[];
  /** Held without a button, so that the pointer is free for the chips. */
  readonly carried: boolean;
  toggle(axis: Axis): void;
}

/** The one view of the bench and what the readout under it says. */
export const useView = defineStore('view', () => {
  const viewport = shallowRef<Viewport | null>(null);
  /** The id of the screen that is open. */
  const screen = ref('');
  /** Rises when the camera came nearer or went farther, for handles that keep their size on screen. */
  const cameraTick = ref(0);
  /** Rises whenever the camera stands otherwise than in the frame before. */
  const turned = ref(0);
  /** Figures of a drag, size along each axis and count. */
  const measure = ref('');
  const cursor = ref('');
  /** The names of what lies under the pointer one on another, where a click can mean more than one thing. */
  const under = ref<readonly string[]>([]);
  /** Whether one looks without perspective. */
  const flat = ref(false);
  /** The pose that is shown now; set from the screen that is open. */
  const pose = shallowRef<Pose>(REST_POSE);
  /** Takes keys while a hand holds something in the view: figures are typed there. Gives whether a key was meant for it. */
  const keyUser = shallowRef<((key: string) => boolean) | null>(null);
  /** The axes that a drag goes along, to be switched at the pointer or by X, Y and Z; null while nothing is held. */
  const axes = shallowRef<DragAxes | null>(null);
  /** Whether each axis has a scale of its own, for the gizmo and for fields alike. */
  const apart = ref(false);
  /** What of the open screen is framed as selected; null when nothing is. */
  const inHand = shallowRef<() => Extent | null>(() => null);
  const setViewport = (v: Viewport | null): void => {
    viewport.value = v ? markRaw(v) : null;
    flat.value = v?.camera.orthographic ?? false;
  };
  return {
    viewport,
    screen,
    cameraTick,
    turned,
    measure,
    cursor,
    under,
    flat,
    pose,
    keyUser,
    axes,
    apart,
    inHand,
    setViewport,
  };
});
