import { placesOf, placesText } from '@sphalerite/core/generate';
import { type Vec3, add, dot, length, mapVec, scale, sub } from '@sphalerite/core/math';
import { type DrawList, pickInstance } from '@sphalerite/core/scene';
import { type Ref, computed, shallowRef } from 'vue';
import type { JointMark } from '../../viewport/overlay';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import { useBringing } from './bring-state';

/** How near to a place the pointer must be, as a share of how far away that is. */
const NEAR = 0.022;
/** Places that a way keeps at least. */
const FEWEST = 2;
/** Cubes from the last place to one that is put behind it. */
const ON = 24;

/** The way of a rope, drawn in the view: its places are dragged, and pulling the rope anywhere puts one there. */
export function pathPlaces(list: Ref<DrawList>) {
  const bringing = useBringing();
  const works = computed(() => bringing.waiting?.importer === 'rope');
  const places = computed((): readonly Vec3[] => (works.value ? placesOf(String(bringing.options['path'] ?? '')) : []));
  /** The place in hand. */
  const chosen = shallowRef(-1);
  /** While it is dragged: the plane it is moved in, towards the eye. */
  const plane = shallowRef<{ readonly at: Vec3; readonly normal: Vec3 } | null>(null);
  const put = (to: readonly Vec3[]): void => bringing.wish({ path: placesText(to) });

  /** The place that a ray comes near to; −1 for none. */
  function under({ ray }: ViewPointer): number {
    let best = -1,
      least = NEAR;
    places.value.forEach((p, i) => {
      const along = dot(sub(p, ray.origin), ray.dir);
      if (along <= 0) return;
      const off = length(sub(p, add(ray.origin, scale(ray.dir, along)))) / along;
      if (off < least) [best, least] = [i, off];
    });
    return best;
  }
  /** A place more, where the rope is pulled. */
  function insert({ ray }: ViewPointer): number {
    const hit = pickInstance(list.value, ray.origin, ray.dir);
    if (!hit) return -1;
    const at = add(ray.origin, scale(ray.dir, hit.t));
    const before = segmentNear(places.value, at);
    put([...places.value.slice(0, before + 1), mapVec(at, Math.round), ...places.value.slice(before + 1)]);
    return before + 1;
  }
  const pointer: PointerUser = {
    down(p) {
      if (!works.value) return false;
      chosen.value = under(p);
      if (chosen.value < 0) chosen.value = insert(p);
      if (chosen.value < 0) return false;
      plane.value = { at: places.value[chosen.value]!, normal: p.ray.dir };
      return true;
    },
    move({ ray }) {
      const held = plane.value;
      if (!held) return;
      const facing = dot(ray.dir, held.normal);
      if (facing < 0.05) return;
      const to = add(ray.origin, scale(ray.dir, dot(sub(held.at, ray.origin), held.normal) / facing));
      const whole = mapVec(to, (v) => Math.round(Math.max(-120, Math.min(120, v))));
      if (whole.some((v, a) => v !== places.value[chosen.value]![a]))
        put(places.value.map((p, i) => (i === chosen.value ? whole : p)));
    },
    up: () => void (plane.value = null),
    leave: () => undefined,
    cancel: () => void (plane.value = null),
  };
  const marks = computed((): JointMark[] =>
    places.value.map((at, i) => ({ at, parent: null, side: 'centre', selected: i === chosen.value })),
  );
  /** A place behind the last one, going on as the way did. */
  function longer(): void {
    const [before, last] = [places.value.at(-2) ?? [0, 0, 0], places.value.at(-1)!] as [Vec3, Vec3];
    const way = sub(last, before),
      far = length(way) || 1;
    put([...places.value, mapVec(add(last, scale(way, ON / far)), Math.round)]);
    chosen.value = places.value.length - 1;
  }
  const removable = computed(() => chosen.value >= 0 && places.value.length > FEWEST);
  function remove(): void {
    if (!removable.value) return;
    put(places.value.filter((_, i) => i !== chosen.value));
    chosen.value = -1;
  }
  return { works, pointer, marks, longer, remove, removable, count: computed(() => places.value.length) };
}

/** The piece of a way between two places that passes nearest to a point. */
function segmentNear(places: readonly Vec3[], at: Vec3): number {
  let best = 0,
    least = Infinity;
  for (let i = 0; i + 1 < places.length; i++) {
    const [a, b] = [places[i]!, places[i + 1]!],
      way = sub(b, a);
    const t = Math.max(0, Math.min(1, dot(sub(at, a), way) / (dot(way, way) || 1)));
    const off = length(sub(at, add(a, scale(way, t))));
    if (off < least) [best, least] = [i, off];
  }
  return best;
}
