<script setup lang="ts">
import { EXPORTERS, optionFields, optionsOf } from '@sphalerite/core/files';
import { computed } from 'vue';
import FoldSection from '../../../components/FoldSection.vue';
import OptionsForm from '../OptionsForm.vue';
import { useShip } from '../ship-state';

/** Options that formats of this delivery have of their own. */
const ship = useShip();
const forms = computed(() =>
  EXPORTERS.filter((e) => ship.profile!.formats.includes(e.id)).flatMap((e) => {
    const fields = optionFields(e.options);
    return fields.length > 0
      ? [{ e, fields, values: optionsOf(e, ship.profile!.options[e.id]) as Record<string, unknown> }]
      : [];
  }),
);
function setOption(exporter: string, key: string, value: unknown): void {
  const mine = { ...ship.profile!.options[exporter], [key]: value as string };
  ship.change({ options: { ...ship.profile!.options, [exporter]: mine } });
}
</script>

<template>
  <section v-for="f in forms" :key="f.e.id" class="panel-section">
    <fold-section :id="`ship ${f.e.id}`" :title="f.e.name">
      <options-form :fields="f.fields" :values="f.values" @change="(k, v) => setOption(f.e.id, k, v)" />
    </fold-section>
  </section>
</template>
