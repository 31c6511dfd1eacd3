import type { Extent } from '@sphalerite/core/math';
import { type Project, sceneByItself } from '@sphalerite/core/model';
import { gatherRig, listExtent } from '@sphalerite/core/scene';
import type { ShipCounts } from '@sphalerite/core/files';
import { defineStore } from 'pinia';
import { shallowRef, watch } from 'vue';
import { useDelivery } from './delivery';
import { useSession } from './session';
import { sharedPool } from '../workers/pool';

/** Milliseconds for which the hand must rest before it is counted. */
const REST = 700;
/** Counted in place of a delivery that cannot be made, such as one whose picture is too small for all colours. */
const ROOMY = 'desktop';

/** What the project would ship as, counted in a worker a little after the hand rests. */
export const useShipCounts = defineStore('ship counts', () => {
  const session = useSession();
  const delivery = useDelivery();
  const counts = shallowRef<ShipCounts | null>(null);
  /** Whether what is counted is another delivery than the chosen one, which cannot be made. */
  const roomier = shallowRef(false);
  /** Whether the scene on the bench is counted, and not the rig. */
  const ofScene = shallowRef(false);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stop: AbortController | null = null;
  watch(
    [() => session.project, () => delivery.chosen, () => (ofScene.value ? session.scene?.id : null)] as const,
    ([p, , scene], [before, , sceneBefore] = [null, '', null]) => {
      clearTimeout(timer);
      stop?.abort();
      if (p?.id !== before?.id || scene !== sceneBefore) counts.value = null;
      if (p) timer = setTimeout(() => void count(p), REST);
    },
    { immediate: true },
  );
  const sceneOf = (p: Project): string | null => (ofScene.value && session.scene?.id) || sceneByItself(p);
  async function count(p: Project): Promise<void> {
    const scene = sceneOf(p);
    const subject = scene === null ? ({ of: 'rig' } as const) : ({ of: 'scene', scene } as const);
    const order = { exporter: 'glb', subject, options: {} };
    const { signal } = (stop = new AbortController());
    const planned = (by: string) =>
      sharedPool()
        .run('plan', (sent) => ({ project: sent.packProject(p), order, delivery: by }), { signal })
        .catch(() => null);
    const chosen = await planned(delivery.chosen),
      found = chosen ?? (await planned(ROOMY));
    if (!found || signal.aborted) return;
    counts.value = found.counts as unknown as ShipCounts;
    roomier.value = !chosen;
  }
  return { counts, roomier, ofScene };
});

const extents = new WeakMap<Project, Extent | null>();
/** The box around everything at rest, in project units; null when all is empty. */
export function extentOf(p: Project): Extent | null {
  let known = extents.get(p);
  if (known === undefined) {
    known = listExtent(gatherRig(p));
    extents.set(p, known);
  }
  return known;
}
