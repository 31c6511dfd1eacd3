import { FACE_DIRECTIONS, type Vec3 } from '@sphalerite/core/math';
import { type Id, composite, find, must } from '@sphalerite/core/model';
import { type PickedFace, pickedSlot, slotFacesEdit } from '@sphalerite/core/project';
import { type InstanceHit, gather, pickInstance } from '@sphalerite/core/scene';
import { faceRegion } from '@sphalerite/core/sculpt';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { useSession } from '../../stores/session';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';

/** What a click takes: the face of one cube, the flat face of its colour, or the whole flat face. */
export const PICK_REACHES = ['one', 'colour', 'face'] as const;
export type PickReach = (typeof PICK_REACHES)[number];

const keyOf = ({ cell, direction }: PickedFace): string => `${cell.join()} ${direction}`;

/** Picking faces for a material slot, by pointing at them. */
export const useFacePicking = defineStore('face picking', () => {
  const session = useSession();
  const on = ref(false);
  const slot = ref('Trim');
  const reach = ref<PickReach>('face');
  /** Whether faces are given back to what their swatches and directions say. */
  const away = ref(false);
  const list = computed(() => (session.project ? gather(session.project, { of: 'rig' }) : []));
  const hover = shallowRef<{ readonly hit: InstanceHit; readonly faces: readonly PickedFace[] } | null>(null);
  /** What a press has gathered so far. */
  const stroke = shallowRef<{ readonly part: Id; readonly faces: ReadonlyMap<string, PickedFace> } | null>(null);

  function under(p: ViewPointer): typeof hover.value {
    const hit = pickInstance(list.value, p.ray.origin, p.ray.dir);
    if (!hit || hit.instance.geometry.kind !== 'grid' || hit.instance.source.part === null) return null;
    const direction = FACE_DIRECTIONS.findIndex((d) => d.every((v, i) => v === hit.normal[i]));
    if (direction < 0) return null;
    const cells: readonly Vec3[] =
      reach.value === 'one' ? [hit.cell] : faceRegion(hit.instance.geometry.grid, hit.cell, hit.normal, reach.value);
    return { hit, faces: cells.map((cell) => ({ cell, direction })) };
  }
  function gatherUp(p: ViewPointer): void {
    hover.value = under(p);
    const found = hover.value,
      now = stroke.value;
    if (!found || !now || found.hit.instance.source.part !== now.part) return;
    stroke.value = { ...now, faces: new Map([...now.faces, ...found.faces.map((f) => [keyOf(f), f] as const)]) };
  }
  const pointer: PointerUser = {
    down(p) {
      hover.value = under(p);
      if (!hover.value) return false;
      stroke.value = { part: hover.value.hit.instance.source.part!, faces: new Map() };
      gatherUp(p);
      return true;
    },
    move(p) {
      if (stroke.value) gatherUp(p);
      else hover.value = under(p);
    },
    up() {
      const done = stroke.value;
      stroke.value = null;
      if (done)
        session.apply(slotFacesEdit, {
          part: done.part,
          slot: away.value ? '' : slot.value,
          faces: [...done.faces.values()],
        });
    },
    leave: () => void (hover.value = null),
    cancel: () => void (stroke.value = null),
  };

  const underHand = computed(() => hover.value?.hit.instance.source.part ?? null);
  /** Faces of the part under the pointer that are of the slot already; found anew when it or the slot is another. */
  const own = computed((): readonly PickedFace[] => {
    const project = session.project,
      part = project && underHand.value !== null ? find(project.parts, underHand.value) : undefined;
    const byte = part?.faceSlots?.list.find((s) => s.name === slot.value)?.byte;
    if (!part?.faceSlots || byte === undefined) return [];
    const seen = composite(part),
      out: PickedFace[] = [];
    for (const { direction, grid } of part.faceSlots.faces)
      grid.forEach((x, y, z, v) => {
        if (v === byte && seen.get(x, y, z) !== 0) out.push({ cell: [x, y, z], direction });
      });
    return out;
  });
  /** Faces to be lit, in the lattice of the part under the pointer: what would be taken, and what is of the slot already. */
  const lit = computed(() => {
    const at = hover.value,
      project = session.project;
    if (!at || !project) return null;
    const part = must(project.parts, underHand.value!, 'part');
    const all = new Map([...own.value, ...(stroke.value?.faces.values() ?? []), ...at.faces].map((f) => [keyOf(f), f]));
    return {
      lattice: at.hit.instance.matrix,
      faces: [...all.values()].map(({ cell, direction }) => ({ cell, normal: FACE_DIRECTIONS[direction]! })),
      slot: pickedSlot(part, at.faces[0]!),
    };
  });
  return { on, slot, reach, away, list, pointer, lit };
});
