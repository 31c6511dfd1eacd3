<script setup lang="ts">
import { type Part, composite, looseParts, partsInUse, sideSuffix } from '@sphalerite/core/model';
import { deletePartEdit } from '@sphalerite/core/project';
import { formOf } from '@sphalerite/core/sculpt';
import { computed } from 'vue';
import { useSession } from '../../../stores/session';
import ActionButton from '../../../components/ActionButton.vue';

/** Parts that were perhaps forgotten: on no bone, empty, or equal to others. */
const session = useSession();
const parts = computed(() => partsInUse(session.project?.parts ?? []));
const loose = computed(() =>
  session.project && session.project.rig.bones.length > 0 ? looseParts(session.project).filter((p) => !p.hidden) : [],
);
const empty = computed(() => parts.value.filter((p) => p.layers.every((l) => l.grid.count === 0)));
const equal = computed(() => {
  const groups = new Map<string, Part[]>();
  for (const p of parts.value) {
    // Very large parts are hardly ever equal, and looking would be felt.
    const key = p.layers.every((l) => l.grid.count < 200_000) ? formOf(composite(p)) : '';
    if (key) groups.set(key, [...(groups.get(key) ?? []), p]);
  }
  return [...groups.values()].filter((g) => g.length > 1);
});
const nameOf = (p: Part): string => p.name + sideSuffix(p.side);
const show = (p: Part): void => session.choose({ part: p.id, layer: null });
</script>

<template>
  <section v-if="loose.length + empty.length + equal.length > 0" class="panel-section" aria-label="Parts to look at">
    <div class="panel-head"><h2>To look at</h2></div>
    <template v-if="loose.length > 0"
      ><p class="quiet">On no bone:</p>
      <action-button v-for="p in loose.slice(0, 8)" :key="p.id" look="link" @click="show(p)">
        {{ nameOf(p) }}
      </action-button></template
    >
    <template v-if="empty.length > 0"
      ><p class="quiet">Empty:</p>
      <span v-for="p in empty.slice(0, 8)" :key="p.id" class="row"
        ><action-button look="link" @click="show(p)">{{ nameOf(p) }}</action-button
        ><action-button
          look="link"
          :aria-label="`Delete empty ${nameOf(p)}`"
          @click="session.apply(deletePartEdit, { part: p.id })"
        >
          to the bin
        </action-button></span
      ></template
    >
    <template v-if="equal.length > 0"
      ><p class="quiet">Cube for cube alike:</p>
      <p v-for="g in equal.slice(0, 6)" :key="g[0]!.id">
        <template v-for="(p, i) in g.slice(0, 4)" :key="p.id"
          ><span v-if="i > 0">, </span
          ><action-button look="link" @click="show(p)">{{ nameOf(p) }}</action-button></template
        >
      </p></template
    >
  </section>
</template>
