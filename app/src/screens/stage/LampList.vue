<script setup lang="ts">
import { IconBulb, IconBulbOff, IconPlus, IconTarget, IconTrash } from '@tabler/icons-vue';
import { type Lamp, findIn } from '@sphalerite/core/model';
import { addLampEdit, changeLampsEdit, removeLampsEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import IconButton from '../../components/IconButton.vue';
import ListRow from '../../components/ListRow.vue';
import { useSession } from '../../stores/session';
import { freeLayer, shownExtent } from './placing';
import { useStage } from './stage-state';

/** The lamps of the scene. A new one hangs on the placement in hand, in its middle. */
const session = useSession();
const stage = useStage();
const scene = computed(() => session.scene!);
const inHand = (l: Lamp): boolean => session.hand.placement === null && session.hand.lamp === l.id;
function add(): void {
  const p = session.placement && findIn(scene.value.placements, session.placement.id);
  const e = p && shownExtent(session.project!, p.shows);
  const lamp: Partial<Lamp> = p
    ? {
        parent: p.id,
        layer: p.layer,
        t: e ? [(e.lo[0] + e.hi[0]) / 2, (e.lo[1] + e.hi[1]) / 2, (e.lo[2] + e.hi[2]) / 2] : [0, 0, 0],
      }
    : { t: [0, 20, 0], layer: freeLayer(scene.value) };
  session.apply(addLampEdit, { scene: scene.value.id, lamp }, (now) => ({
    placement: null,
    lamp: now.scenes.find((s) => s.id === scene.value.id)!.lamps.at(-1)!.id,
  }));
}
</script>

<template>
  <section aria-label="Lamps">
    <div class="panel-head tray-head lamps">
      <h2>
        Lamps <span class="figures quiet">{{ scene.lamps.length }}</span>
      </h2>
      <icon-button
        v-if="scene.lamps.length > 0"
        :icon="IconTarget"
        :on="stage.lamps"
        label="Lamps marked in the view"
        tip="Marked in the view"
        @click="stage.lamps = !stage.lamps"
      />
      <icon-button
        :icon="IconPlus"
        label="New lamp"
        :tip="session.placement ? 'Hangs on what is chosen' : 'Stands in the scene'"
        :disabled="!session.writable"
        @click="add"
      />
    </div>
    <list-row
      v-for="l in scene.lamps"
      :key="l.id"
      :on="inHand(l)"
      :label="l.name"
      @click="session.choose({ placement: null, lamp: l.id })"
    >
      <template #picture><span class="glow" :style="{ background: l.colour }" aria-hidden="true" /></template>
      {{ l.name }}
      <template #acts>
        <icon-button
          :icon="l.hidden ? IconBulbOff : IconBulb"
          :label="`${l.hidden ? 'Light' : 'Put out'} ${l.name}`"
          :tip="l.hidden ? 'Light it' : 'Put it out'"
          @click="
            session.apply(changeLampsEdit, { scene: scene.id, changes: [{ id: l.id, change: { hidden: !l.hidden } }] })
          "
        />
        <icon-button
          :icon="IconTrash"
          :label="`Remove ${l.name}`"
          tip="Remove"
          @click="session.apply(removeLampsEdit, { scene: scene.id, lamps: [l.id] })"
        />
      </template>
    </list-row>
  </section>
</template>

<style scoped>
.lamps {
  margin-top: 10px;
  border-top: 1px solid var(--line);
}
.glow {
  width: 12px;
  height: 12px;
  border-radius: 50%;
  border: 1px solid var(--line);
}
</style>
