<script setup lang="ts">
import {
  IconLayoutAlignCenter,
  IconLayoutAlignLeft,
  IconLayoutAlignRight,
  IconLayoutDistributeHorizontal,
} from '@tabler/icons-vue';
import { AXES, type Axis, type Extent, type Vec3 } from '@sphalerite/core/math';
import { alignShifts, distributeShifts, gather, stackShifts } from '@sphalerite/core/scene';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import { useSession } from '../../stores/session';
import { movable, moveInHand } from './moving';
import { extentOfList, shownOf } from './placing';

/** Brings what is chosen in line with the one in hand, spreads it, or puts one on another. */
const session = useSession();
const NAMES = ['X', 'Y', 'Z'] as const;

function arrange(shifts: (extents: Extent[], inHand: number) => readonly Vec3[]): void {
  const scene = session.scene!,
    list = gather(session.project!, { of: 'scene', scene: scene.id });
  const ids = movable(scene, session.view.chosen.placement),
    extents = ids.map((id) => extentOfList(shownOf(scene, list, [id])));
  const there = ids.filter((_, i) => extents[i]),
    known = extents.filter((e) => e !== null);
  const by = new Map(there.map((id, i) => [id, i]));
  const moved = shifts(known, Math.max(0, there.indexOf(session.hand.placement ?? '')));
  moveInHand((w, id) => {
    const s = moved[by.get(id) ?? -1] ?? [0, 0, 0];
    return { ...w, t: [w.t[0] + s[0], w.t[1] + s[1], w.t[2] + s[2]] };
  }, true);
}
const align = (axis: Axis, edge: 'low' | 'middle' | 'high'): void => arrange((e, i) => alignShifts(e, i, axis, edge));
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h3>Arrange</h3>
      <span class="quiet">with the one in hand</span>
    </div>
    <div v-for="axis in AXES" :key="axis" class="axis">
      <b :class="['axis-name', 'xyz'[axis]]">{{ NAMES[axis] }}</b>
      <icon-button
        :icon="IconLayoutAlignLeft"
        :label="`Align low ends along ${NAMES[axis]}`"
        tip="Low ends"
        @click="align(axis, 'low')"
      />
      <icon-button
        :icon="IconLayoutAlignCenter"
        :label="`Align middles along ${NAMES[axis]}`"
        tip="Middles"
        @click="align(axis, 'middle')"
      />
      <icon-button
        :icon="IconLayoutAlignRight"
        :label="`Align high ends along ${NAMES[axis]}`"
        tip="High ends"
        @click="align(axis, 'high')"
      />
      <icon-button
        :icon="IconLayoutDistributeHorizontal"
        :label="`Same gaps along ${NAMES[axis]}`"
        tip="Same gaps"
        @click="arrange((e) => distributeShifts(e, axis))"
      />
    </div>
    <action-button tip="Each on the one that was chosen before it" @click="arrange(stackShifts)"
      >Stack one on another</action-button
    >
  </section>
</template>

<style scoped>
.axis {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-bottom: 4px;
}
.axis-name {
  width: 16px;
}
.x {
  color: var(--axis-x);
}
.y {
  color: var(--axis-y);
}
.z {
  color: var(--axis-z);
}
</style>
