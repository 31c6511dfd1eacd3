<script setup lang="ts">
import { computed } from 'vue';
import SelectField from '../../components/SelectField.vue';
import { useSession } from '../../stores/session';
import { useBringing } from './bring-state';

/** Which palette takes the colours that come; parts that take cubes keep theirs. */
const session = useSession();
const bringing = useBringing();
const OWN = 'own';
const palettes = computed(() => [
  { value: OWN, text: 'a palette of their own' },
  ...(session.project?.palettes ?? []).map((p) => ({ value: p.id, text: `into “${p.name}”` })),
]);
</script>

<template>
  <select-field
    v-if="!bringing.goesHome"
    label="Where the colours go"
    :model-value="bringing.into ?? OWN"
    :choices="palettes"
    @change="(v: string) => (bringing.into = v === OWN ? null : v)"
  />
</template>
