<script setup lang="ts">
import { computed } from 'vue';
import CheckField from '../../../components/CheckField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import FoldSection from '../../../components/FoldSection.vue';
import FormRow from '../../../components/FormRow.vue';
import { useShip } from '../ship-state';

/** How faces are merged and joined. */
const ship = useShip();
const mesh = computed(() => ship.profile!.mesh);
</script>

<template>
  <section class="panel-section">
    <fold-section id="ship mesh" title="Mesh" open>
      <form-row label="merge" stacked
        ><choice-field
          label="Merge flat faces"
          wide
          :model-value="mesh.merge"
          :choices="[
            { value: 'colour', text: 'colour', tip: 'Faces of one colour' },
            { value: 'slot', text: 'slot', tip: 'Faces of one material slot, in its commonest colour' },
            { value: 'all', text: 'all', tip: 'All of a slot, with the colours in a picture' },
          ]"
          @change="(merge) => ship.change({ mesh: { merge } })"
      /></form-row>
      <form-row label="as" stacked
        ><choice-field
          label="Meshes are"
          wide
          :model-value="mesh.as"
          :choices="[
            { value: 'parts', text: 'parts', tip: 'A mesh for each part' },
            { value: 'bones', text: 'bones', tip: 'The parts of a bone as one mesh' },
            { value: 'skin', text: 'skin', tip: 'One mesh that follows its bones as a rigid skin' },
            { value: 'one', text: 'one', tip: 'One object without bones' },
          ]"
          @change="(as) => ship.change({ mesh: { as } })"
      /></form-row>
      <div class="checks">
        <check-field
          :model-value="mesh.watertight"
          tip="No open edge and no gap where colours meet"
          @change="
            (watertight) => ship.change({ mesh: watertight ? { watertight, dropHidden: false } : { watertight } })
          "
          >Watertight</check-field
        >
        <check-field
          :model-value="mesh.dropHidden"
          tip="Leaves out faces that nobody sees in any clip; the mesh is open then, so not watertight"
          @change="
            (dropHidden) => ship.change({ mesh: dropHidden ? { dropHidden, watertight: false } : { dropHidden } })
          "
          >Drop hidden</check-field
        >
        <check-field
          :model-value="mesh.weld"
          tip="One vertex for each position and texture coordinate; readers shade flat by themselves"
          @change="(weld) => ship.change({ mesh: { weld } })"
          >Weld</check-field
        >
      </div>
    </fold-section>
  </section>
</template>

<style scoped>
.checks {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
</style>
