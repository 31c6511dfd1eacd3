<script setup lang="ts">
import {
  IconEye,
  IconEyeOff,
  IconFocus2,
  IconLock,
  IconLockOpen,
  IconPlus,
  IconStack2,
  IconTrash,
} from '@tabler/icons-vue';
import type { Scene } from '@sphalerite/core/model';
import {
  addSceneLayerEdit,
  changePlacementsEdit,
  changeSceneLayerEdit,
  removeSceneLayerEdit,
} from '@sphalerite/core/project';
import ColourField from '../../components/ColourField.vue';
import IconButton from '../../components/IconButton.vue';
import NameField from '../../components/NameField.vue';
import SelectField from '../../components/SelectField.vue';
import { records } from '../../components/choices';
import { useSession } from '../../stores/session';
import { useStage } from './stage-state';

/** The coloured layers of the scene, and the one of what is chosen. */
defineProps<{ scene: Scene }>();
const session = useSession();
const stage = useStage();
</script>

<template>
  <section aria-label="Layers">
    <div class="panel-head tray-head layers">
      <h2>
        Layers <span class="figures quiet">{{ scene.layers.length }}</span>
      </h2>
      <icon-button
        :icon="IconPlus"
        label="New layer"
        @click="session.apply(addSceneLayerEdit, { scene: scene.id, name: 'Layer' })"
      />
    </div>
    <div v-for="l in scene.layers" :key="l.id" class="layer">
      <colour-field
        :label="`Colour of the layer ${l.name}`"
        :model-value="l.colour"
        @change="(colour) => session.apply(changeSceneLayerEdit, { scene: scene.id, layer: l.id, change: { colour } })"
      />
      <name-field
        :label="`Name of the layer ${l.name}`"
        :name="l.name"
        @rename="(name) => session.apply(changeSceneLayerEdit, { scene: scene.id, layer: l.id, change: { name } })"
      />
      <span class="acts"
        ><icon-button
          :icon="IconFocus2"
          :on="stage.alone === l.id"
          :label="`${l.name} alone`"
          tip="This layer alone; the others turn faint"
          @click="stage.alone = stage.alone === l.id ? null : l.id" /><icon-button
          :icon="l.locked ? IconLock : IconLockOpen"
          :label="`${l.locked ? 'Unlock' : 'Lock'} the layer ${l.name}`"
          :tip="l.locked ? 'Unlock' : 'Lock'"
          @click="
            session.apply(changeSceneLayerEdit, { scene: scene.id, layer: l.id, change: { locked: !l.locked } })
          " /><icon-button
          :icon="l.hidden ? IconEyeOff : IconEye"
          :label="`${l.hidden ? 'Show' : 'Hide'} the layer ${l.name}`"
          :tip="l.hidden ? 'Show' : 'Hide'"
          @click="
            session.apply(changeSceneLayerEdit, { scene: scene.id, layer: l.id, change: { hidden: !l.hidden } })
          " /><icon-button
          v-if="scene.layers.length > 1"
          :icon="IconTrash"
          :label="`Remove the layer ${l.name}`"
          tip="What lies on it comes to the first"
          @click="session.apply(removeSceneLayerEdit, { scene: scene.id, layer: l.id })"
      /></span>
    </div>
    <p v-if="session.view.chosen.placement.length > 0" class="onto">
      <IconStack2 aria-hidden="true" :size="15" />
      <select-field
        label="Layer of what is chosen"
        :model-value="session.placement?.layer ?? null"
        :choices="records(scene.layers, (o) => o.name)"
        @change="
          (layer: string | null) =>
            layer &&
            session.apply(changePlacementsEdit, {
              scene: scene.id,
              changes: session.view.chosen.placement.map((id) => ({ id, change: { layer } })),
            })
        "
      />
    </p>
  </section>
</template>

<style scoped>
.layers {
  margin-top: 10px;
  border-top: 1px solid var(--line);
}
.layer {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 1px 6px 1px 12px;
}
.layer > :nth-child(2) {
  flex: 1;
  min-width: 0;
}
.acts {
  display: flex;
}
.onto {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 6px 12px;
  color: var(--quiet);
}
.onto > :last-child {
  flex: 1;
}
</style>
