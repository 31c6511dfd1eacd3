<script setup lang="ts">
import { partsInUse, sideSuffix } from '@sphalerite/core/model';
import { setProjectEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';
import OptionsForm from './OptionsForm.vue';
import { useShip } from './ship-state';
import SelectField from '../../components/SelectField.vue';
import { group } from '../../components/choices';

const session = useSession();
const ship = useShip();
const rows = computed(() => {
  const c = ship.made?.counts;
  if (!c) return [];
  const ways = session.project?.colourways.length ?? 0;
  // Faces before merging are shown on the bench.
  const { faces: _faces, ...shown } = c;
  return Object.entries(ship.exporter.takes === 'model' && ways > 0 ? { ...shown, colourways: ways } : shown);
});
const WHOLE = 'whole';
const only = computed({
  get: () => (ship.only ? `${ship.only.of} ${ship.only.id}` : WHOLE),
  set: (v) => {
    const [of, id] = v.split(' ');
    ship.only = v === WHOLE ? null : { of: of as 'part' | 'scene', id: id! };
  },
});
const subjects = computed(() => [
  { value: WHOLE, text: 'everything on the rig' },
  ...group(
    'a scene',
    (session.project?.scenes ?? []).map((s) => ({ value: `scene ${s.id}`, text: s.name })),
  ),
  ...group(
    'one part',
    partsInUse(session.project?.parts ?? []).map((p) => ({ value: `part ${p.id}`, text: p.name + sideSuffix(p.side) })),
  ),
]);
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h2>{{ ship.exporter.name }}</h2>
      <span class="quiet">{{ ship.exporter.extensions[0] }}</span>
    </div>
    <CommandButton id="ship.save" label look="primary" />
    <p v-if="ship.working" class="quiet" role="status">Making the file…</p>
    <SelectField
      v-if="ship.exporter.takes === 'model' || ship.exporter.takes === 'solid'"
      v-model="only"
      label="What is shipped"
      :choices="subjects"
    />
    <options-form
      :fields="ship.fields"
      :values="ship.options[ship.chosen]!"
      @change="(key, value) => (ship.options[ship.chosen]![key] = value)"
    />
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
  <section v-if="session.project && ship.exporter.takes === 'model'" class="panel-section">
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
