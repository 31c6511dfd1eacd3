import { type Box, type Vec3, mapVec } from '@sphalerite/core/math';
import { type DrawInstance, type DrawList, instanceExtent, pickInstance } from '@sphalerite/core/scene';
import { type Ref, computed, shallowRef } from 'vue';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import { useBringing } from './bring-state';

/** Pieces of a field are joined by dragging one onto another in the view. */
export function joining(list: Ref<DrawList>) {
  const bringing = useBringing();
  const held = shallowRef<DrawInstance | null>(null),
    over = shallowRef<DrawInstance | null>(null);
  /** Of each part the number that its piece had before any were joined. */
  const numbers = computed(() => bringing.made?.facts['numbers'] ?? []);
  const works = computed(() => numbers.value.length > 1 && bringing.options['split'] === 'pieces');
  const under = ({ ray }: ViewPointer): DrawInstance | null =>
    pickInstance(list.value, ray.origin, ray.dir)?.instance ?? null;
  const number = (i: DrawInstance): number =>
    numbers.value[bringing.made!.project.parts.findIndex((p) => p.id === i.source.part)]!;

  const pointer: PointerUser = {
    down(p) {
      held.value = works.value ? under(p) : null;
      return held.value !== null;
    },
    move(p) {
      over.value = works.value ? under(p) : null;
    },
    up(p) {
      const [from, to] = [held.value, under(p)];
      held.value = null;
      // Tiles of one piece are together already.
      if (!from || !to || number(from) === number(to)) return;
      const joined = String(bringing.options['join'] ?? '');
      bringing.wish({ join: [joined, `${number(from)}+${number(to)}`].filter((j) => j !== '').join(',') });
    },
    leave: () => void (over.value = null),
    cancel: () => void (held.value = null),
  };
  /** What is held and what it would be joined to. */
  const corners = computed((): Box[] =>
    [held.value, held.value && over.value !== held.value ? over.value : null].flatMap((i) => (i ? boxOf(i) : [])),
  );
  /** What the pointer is over, in words. */
  const hovered = computed(() => {
    const part = over.value && bringing.made?.project.parts.find((p) => p.id === over.value!.source.part);
    return part ? `${part.name} · ${part.bounds.size.join(' × ')}` : '';
  });
  return { pointer, corners, works, hovered };
}

function boxOf(i: DrawInstance): Box[] {
  const e = instanceExtent(i);
  if (!e) return [];
  const min = mapVec(e.lo, (v) => Math.floor(v + 1e-6));
  return [{ min, size: mapVec(e.hi, (v, a) => Math.ceil(v - 1e-6) - min[a]!) as Vec3 }];
}
