<script setup lang="ts">
import { historyBytes } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import { IconChevronDown } from '@tabler/icons-vue';
import { useSession } from '../stores/session';
import { useDialogs } from '../stores/dialogs';
import IconButton from '../components/IconButton.vue';
import ListRow from '../components/ListRow.vue';
import DialogBox from '../components/DialogBox.vue';
import ChoiceField from '../components/ChoiceField.vue';
import RestorePoints from './RestorePoints.vue';

const dialogs = useDialogs();
const session = useSession();
type Step = NonNullable<typeof session.history>['entries'][number] & { readonly i: number };
/** Like steps one after the other, the newest first: they stand in one row until it is unfolded. */
const runs = computed(() => {
  const out: Step[][] = [];
  for (const [i, e] of [...(session.history?.entries ?? []).entries()].reverse()) {
    const last = out.at(-1);
    if (last && last[0]!.label === e.label && last[0]!.where === e.where) last.push({ ...e, i });
    else out.push([{ ...e, i }]);
  }
  return out;
});
const unfolded = ref(new Set<number>());
/** The row of a folded run stands for the newest of it, or for where one is within it. */
const isFolded = (run: readonly Step[]): boolean => run.length > 1 && !unfolded.value.has(run.at(-1)!.i);
const rowsOf = (run: readonly Step[]): readonly Step[] => {
  if (!isFolded(run)) return run;
  return [run.find((s) => s.i === session.history?.now) ?? run[0]!];
};
const memory = computed(() =>
  session.history
    ? `${(historyBytes(session.history) / 1048576).toFixed(1)} of ${Math.round(session.history.budget / 1048576)} MB`
    : '',
);
const time = (at: number): string =>
  new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' });
</script>

<template>
  <dialog-box v-model="dialogs.history" title="History" width="440px">
    <choice-field
      v-model="dialogs.pastOf"
      label="What is shown"
      wide
      :choices="[
        { value: 'steps', text: 'Steps' },
        { value: 'points', text: `Restore points ${session.project?.restorePoints.length || ''}` },
      ]"
    />
    <RestorePoints v-if="dialogs.pastOf === 'points'" />
    <template v-else
      ><p class="quiet">
        Click a step to go back or forward to it. Nothing is lost until you change something from there. Memory:
        <span class="figures">{{ memory }}</span>
      </p>
      <ol class="steps">
        <template v-for="run in runs" :key="run.at(-1)!.i">
          <li v-for="s in rowsOf(run)" :key="s.i">
            <list-row
              :on="s.i === session.history?.now"
              :class="{ later: s.i > (session.history?.now ?? 0) }"
              @click="session.moveTo(s.i)"
            >
              <span class="label"
                >{{ s.label }}<b v-if="isFolded(run)" class="figures quiet"> ×{{ run.length }}</b></span
              ><small class="quiet">{{ s.where }}</small
              ><small class="figures quiet">{{ time(s.at) }}</small>
              <template v-if="isFolded(run)" #acts
                ><icon-button
                  :icon="IconChevronDown"
                  class="small"
                  :label="`Show all ${run.length} steps “${s.label}”`"
                  @click="unfolded = new Set(unfolded).add(run.at(-1)!.i)"
              /></template>
            </list-row>
          </li>
        </template></ol
    ></template>
  </dialog-box>
</template>

<style scoped>
.steps {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
  max-height: 50vh;
  overflow: auto;
}
.label {
  flex: 1;
}
.later .label {
  color: var(--quiet);
  font-style: italic;
}
</style>
