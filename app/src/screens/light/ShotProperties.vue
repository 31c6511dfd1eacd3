<script setup lang="ts">
import { find, TICKS } from '@sphalerite/core/model';
import { computed } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import EmptyState from '../../components/EmptyState.vue';
import FormRow from '../../components/FormRow.vue';
import NameField from '../../components/NameField.vue';
import SelectField from '../../components/SelectField.vue';
import { records } from '../../components/choices';
import { useSession } from '../../stores/session';
import CameraPanel from './CameraPanel.vue';
import GradePanel from './GradePanel.vue';
import LampsPanel from './LampsPanel.vue';
import SkyPanel from './SkyPanel.vue';
import StagePanel from './StagePanel.vue';
import SunPanel from './SunPanel.vue';
import { useShot } from './shot-in-hand';

/** All that a shot says: what it shows, through what lens, in what light, on what ground, and how it is graded. */
const session = useSession();
const hand = useShot();
const shot = computed(() => session.shot);
const pose = computed(() => {
  const c = find(session.project?.clips ?? [], shot.value?.clip ?? null);
  return c ? `${c.name}, frame ${Math.round((shot.value!.time * c.fps) / TICKS)}` : 'rest pose';
});
</script>

<template>
  <div v-if="shot">
    <section class="panel-section">
      <div class="panel-head">
        <NameField
          :name="shot.name"
          label="Name of the shot"
          :disabled="!session.writable"
          @rename="(name) => hand.change({ name })"
        /><span class="quiet">shot</span>
      </div>
      <form-row v-if="session.project!.scenes.length > 0" label="Shows"
        ><SelectField
          label="What the shot shows"
          :model-value="find(session.project!.scenes, shot.scene)?.id ?? ''"
          :choices="[{ value: '', text: 'the figure' }, ...records(session.project!.scenes, (s) => s.name)]"
          @change="hand.change({ scene: $event || null })"
      /></form-row>
      <div v-if="shot.scene === null" class="row between">
        <span class="quiet">{{ pose }}</span><CommandButton id="light.pose" text="Pose from Animate" />
      </div>
      <form-row v-if="session.project!.colourways.length > 0" label="Colourway"
        ><SelectField
          label="Colourway of the shot"
          :model-value="find(session.project!.colourways, shot.colourway)?.id ?? ''"
          @change="hand.change({ colourway: $event || null })"
          :choices="[{ value: '', text: 'Palette' }, ...records(session.project!.colourways, (w) => w.name)]"
      /></form-row>
    </section>
    <CameraPanel />
    <SunPanel />
    <SkyPanel />
    <LampsPanel />
    <StagePanel />
    <GradePanel />
  </div>
  <empty-state v-else text="Choose a shot, or make one from this view." />
</template>

<style scoped>
.between {
  justify-content: space-between;
}
</style>

<style>
.with-icon {
  display: flex;
  align-items: center;
  gap: 6px;
}
.with-icon svg {
  width: 17px;
  height: 17px;
  stroke-width: 1.6;
  color: var(--quiet);
}
</style>
