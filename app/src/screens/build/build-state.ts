import type { Axis, Vec3 } from '@sphalerite/core/math';
import type { MirrorPlanes, StrokeVerb } from '@sphalerite/core/sculpt';
import { middlePlane } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { useSession } from '../../stores/session';
import { READY_CARDS } from '../../tools/cards';
import type { Reach, ToolCard } from '../../tools/tool';

/** What is in the artist's hand in Build. */
export const useBuild = defineStore('build', () => {
  const session = useSession();
  const cards = ref<ToolCard[]>([...READY_CARDS]);
  const index = ref(0);
  const byte = ref(0);
  const mirrorOn = ref<[boolean, boolean, boolean]>([false, false, false]);
  const isolate = ref(false);
  /** The keyboard cursor, null while it is put away. */
  const cursor = ref<Vec3 | null>(null);

  const card = computed(() => cards.value[index.value]!);
  const palette = computed(() => session.palette);
  const swatch = computed(() => palette.value?.swatches.find((s) => s.byte === byte.value) ?? palette.value?.swatches[0] ?? null);
  /** Live planes through the middle of the part's volume, in half cubes. */
  const mirror = computed<MirrorPlanes>(() => {
    const b = session.part?.bounds;
    const plane = (a: Axis): number | null => (b && mirrorOn.value[a] ? middlePlane(b.min[a], b.size[a]) : null);
    return [plane(0), plane(1), plane(2)];
  });
  const change = (more: Partial<ToolCard>): void => {
    const next = { ...card.value, ...more };
    const verb = { add: 'Add', erase: 'Erase', paint: 'Paint' }[next.verb];
    next.name = next.reach === 'extrude' ? `Extrude${next.face === 'face' ? '' : next.face === 'colour' ? ' hue' : ' plane'}` : `${verb} ${next.reach}`;
    cards.value = cards.value.with(index.value, next);
  };
  return {
    cards, index, byte, mirrorOn, isolate, cursor, card, palette, swatch, mirror,
    setVerb: (verb: StrokeVerb) => change({ verb, ...(card.value.reach === 'extrude' ? { reach: 'box' as Reach } : {}) }),
    setReach: (reach: Reach) => change({ reach }),
    setFace: (face: ToolCard['face']) => change({ face }),
    toggleMirror: (a: Axis) => (mirrorOn.value = mirrorOn.value.map((v, i) => (i === a ? !v : v)) as [boolean, boolean, boolean]),
  };
});
