<script setup lang="ts">
import { setProjectEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';
import { useShip } from './ship-state';

const session = useSession();
const ship = useShip();
const counts = computed(() => ship.made?.counts);
const rows = computed(() =>
  counts.value
    ? ([
        ['parts', counts.value.parts],
        ['nodes', counts.value.nodes],
        ['clips', counts.value.clips],
        ...(session.project?.colourways.length ? [['colourways', session.project.colourways.length] as const] : []),
        ['vertices', counts.value.vertices],
        ['triangles', counts.value.triangles],
      ] as const)
    : [],
);
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h2>Game file</h2>
      <span class="quiet">GLB</span>
    </div>
    <CommandButton id="ship.glb" label class="lead" />
    <p v-if="ship.working" class="quiet" role="status">Making the file…</p>
  </section>
  <section class="panel-section">
    <h2>What is in it</h2>
    <dl class="figures">
      <template v-for="[k, v] in rows" :key="k"
        ><dt>{{ k }}</dt>
        <dd>{{ v.toLocaleString('en') }}</dd></template
      >
    </dl>
  </section>
  <section v-if="session.project" class="panel-section">
    <h2>Scale</h2>
    <NumberField
      label="1 cube"
      name="Size of a cube in centimetres"
      unit="cm"
      :model-value="session.project.metresPerUnit * 100"
      :min="0.1"
      :step="0.1"
      @change="(v) => session.apply(setProjectEdit, { metresPerUnit: v / 100 })"
    />
    <p class="quiet">Metres, Y up, facing +Z, as glTF asks for. Every part's origin is its pivot.</p>
  </section>
</template>

<style scoped>
.lead {
  background: var(--resin);
  color: var(--resin-ink);
  border-color: var(--resin);
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 3px 12px;
  margin: 0;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
  text-align: right;
}
</style>
