import { type DeliveryProfile, type Project } from '@sphalerite/core/model';
import { type Vec3, cross } from '@sphalerite/core/math';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useNotices } from '../../stores/notices';
import { useView } from '../../stores/view';
import type { ArrivedLook, ArrivedModel, ArrivedPlace } from '../../viewport/arrived';
import { useShip } from './ship-state';

const AXES: Readonly<Record<string, Vec3>> = {
  '+x': [1, 0, 0],
  '-x': [-1, 0, 0],
  '+y': [0, 1, 0],
  '-y': [0, -1, 0],
  '+z': [0, 0, 1],
  '-z': [0, 0, -1],
};

/** How a file of a delivery stands in the view: upright and to scale, whichever way its own axes point. */
export function placeOf(project: Project, { place }: DeliveryProfile): ArrivedPlace {
  const up = AXES[place.up]!,
    forward = AXES[place.forward]!,
    metre = 1 / project.metresPerUnit;
  return { axes: [cross(up, forward), up, forward], scale: metre / place.unitsPerMetre, metre };
}

/** The file of the delivery as it is read back in the view, and what is looked at of it. */
export const useLooking = defineStore('looking', () => {
  const ship = useShip();
  const view = useView();
  const notices = useNotices();
  const arrived = shallowRef<ArrivedModel | null>(null);
  const look = ref<ArrivedLook>('plain');
  const colliders = ref(true);
  const clip = ref<string | null>(null);
  const playing = ref(false);
  /** Raised whenever something of it looks otherwise. */
  const tick = ref(0);
  let latest: Uint8Array | null = null,
    request = 0,
    began = 0;

  const show = (): void => {
    arrived.value?.look(look.value);
    arrived.value?.showColliders(colliders.value);
    tick.value++;
    view.viewport?.invalidate();
  };
  watch([look, colliders], show);

  async function read(): Promise<void> {
    const made = ship.made,
      bytes = made?.seen ?? null;
    if (bytes === latest) return;
    latest = bytes;
    if (!bytes || !made || !ship.profile) return drop();
    try {
      const { ArrivedModel } = await import('../../viewport/arrived');
      const next = await ArrivedModel.read(bytes, placeOf(made.project, ship.profile));
      if (latest !== bytes) return next.dispose();
      drop();
      latest = bytes;
      arrived.value = next;
      if (clip.value && !next.facts.clips.some((c) => c.name === clip.value)) play(null);
      show();
    } catch (e) {
      notices.fail(e);
    }
  }
  function drop(): void {
    latest = null;
    arrived.value?.dispose();
    arrived.value = null;
  }

  function frame(now: number): void {
    const model = arrived.value,
      seconds = model?.facts.clips.find((c) => c.name === clip.value)?.seconds;
    if (!playing.value || !model || !seconds) return;
    model.pose(clip.value, ((now - began) / 1000) % seconds);
    view.viewport?.invalidate();
    request = requestAnimationFrame(frame);
  }
  /** Plays a clip of the file itself; null for rest. */
  function play(name: string | null): void {
    cancelAnimationFrame(request);
    clip.value = name;
    playing.value = name !== null;
    began = performance.now();
    if (name === null) arrived.value?.pose(null, 0);
    else request = requestAnimationFrame(frame);
    view.viewport?.invalidate();
  }
  /** While Ship is open: reads what was made, whenever it was made anew. */
  function open(): () => void {
    const stop = watch(
      () => ship.made,
      () => void read(),
      { immediate: true },
    );
    return () => {
      stop();
      play(null);
      drop();
    };
  }
  const facts = computed(() => arrived.value?.facts ?? null);
  return { arrived, facts, look, colliders, clip, playing, tick, play, open };
});
