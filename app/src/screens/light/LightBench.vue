<script setup lang="ts">
import { ElProgress } from 'element-plus';
import 'element-plus/theme-chalk/el-progress.css';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import CommandButton from '../../components/CommandButton.vue';
import EmptyState from '../../components/EmptyState.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import { useLight } from './light-state';
import { SHAPES, shaped } from './output-shapes';
import { useShot } from './shot-in-hand';

const light = useLight();
const hand = useShot();
const output = computed(() => hand.shot?.output);
const state = computed(() => {
  const { current } = light;
  if (light.tracing) return `${Math.round(light.progress * 100)} % · ${Math.ceil(light.left)} s left`;
  if (!current) return 'ready';
  if (!current.done) return 'stopped; what is there can be saved';
  return light.calming ? 'taking the noise out…' : `done in ${current.seconds.toFixed(1)} s`;
});
const shape = computed(() => SHAPES.find((s) => s.is(output.value?.size ?? [1, 1]))?.value ?? '');
</script>

<template>
  <div class="light-bench">
    <section class="go" aria-label="Tracing">
      <h2>Picture</h2>
      <div class="row">
        <CommandButton v-if="!light.tracing && !light.calming" id="light.trace" label look="primary" /><CommandButton
          v-else
          id="light.stop"
          label
        /><CommandButton id="light.calm" /><CommandButton id="light.png" label />
      </div>
      <el-progress
        :percentage="Math.round(light.progress * 100)"
        :stroke-width="6"
        :show-text="false"
        color="var(--honey)"
        aria-label="Progress of the picture"
      />
      <p class="figures quiet" data-testid="trace-state">{{ state }}</p>
    </section>
    <section v-if="output" class="output" aria-label="Output">
      <div class="panel-head">
        <h2>Output</h2>
        <SelectField
          label="Shape of the picture"
          :model-value="shape"
          :choices="[...SHAPES, ...(shape === '' ? [{ value: '', text: 'own shape' }] : [])]"
          @change="$event && hand.set('output', { size: shaped($event, output.size) })"
        />
      </div>
      <div class="row">
        <NumberField
          label="W"
          name="Picture width"
          :model-value="output.size[0]"
          :min="16"
          :max="8192"
          :step="16"
          @change="(v) => hand.set('output', { size: [Math.round(v), output!.size[1]] })"
        /><NumberField
          label="H"
          name="Picture height"
          :model-value="output.size[1]"
          :min="16"
          :max="8192"
          :step="16"
          @change="(v) => hand.set('output', { size: [output!.size[0], Math.round(v)] })"
        />
      </div>
      <div class="row">
        <NumberField
          label="samples"
          name="Samples"
          :model-value="output.samples"
          :min="1"
          :max="65536"
          :step="8"
          @change="(v) => hand.set('output', { samples: Math.round(v) })"
        />
        <check-field :model-value="output.transparent" @change="(transparent) => hand.set('output', { transparent })"
          >Transparent</check-field
        >
      </div>
    </section>
    <section class="strip" aria-label="Pictures made">
      <div v-for="p in light.pictures" :key="p.id" class="made">
        <action-button
          class="thumb"
          :on="light.current?.id === p.id"
          :tip="`${p.shot.name}, ${p.shot.output.size.join('×')}, ${p.shot.output.samples} samples, ${p.seconds.toFixed(1)} s`"
          @click="light.current = p"
        >
          <img :src="p.url" :alt="`Picture of ${p.shot.name}`" /><small class="figures">{{ p.shot.name }}</small>
        </action-button>
        <action-button
          v-if="hand.shot && light.current?.id === p.id"
          look="bare"
          tip="The shot becomes again as it was for this picture"
          @click="light.takeBack(p)"
          >take back</action-button
        >
      </div>
      <empty-state
        v-if="light.pictures.length === 0"
        text="Pictures you trace line up here with the settings they were made from."
      />
    </section>
  </div>
</template>

<style scoped>
.light-bench {
  display: grid;
  grid-template-columns: 404px 268px 1fr;
  height: 100%;
}
section {
  padding: 10px 14px;
  min-width: 0;
}
.go,
.output {
  display: grid;
  gap: 8px;
  align-content: start;
  border-right: 1px solid var(--line);
}
.strip {
  display: flex;
  gap: 10px;
  overflow: auto;
  align-items: start;
}
.made {
  display: grid;
  flex: none;
  justify-items: start;
}
.thumb.el-button {
  flex: none;
  padding: 4px;
}
.thumb.el-button :deep(> span) {
  display: grid;
  gap: 3px;
}
.thumb img {
  height: 70px;
  min-width: 60px;
  object-fit: cover;
  border-radius: 3px;
  display: block;
}
.thumb small {
  max-width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  text-align: left;
}
@media (max-width: 1100px) {
  .light-bench {
    grid-template-columns: 340px 230px 1fr;
  }
}
</style>
