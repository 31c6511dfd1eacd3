<script setup lang="ts">
import { historyBytes } from '@sphalerite/core/project';
import { computed } from 'vue';
import { useSession } from '../stores/session';
import { useDialogs } from '../stores/dialogs';
import ListRow from '../components/ListRow.vue';
import DialogBox from '../components/DialogBox.vue';

const dialogs = useDialogs();
const session = useSession();
const steps = computed(() => (session.history?.entries ?? []).map((e, i) => ({ ...e, i })).reverse());
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
    <p class="quiet">
      Click a step to go back or forward to it. Nothing is lost until you change something from there. Memory:
      <span class="figures">{{ memory }}</span>
    </p>
    <ol class="steps">
      <li v-for="s in steps" :key="s.i">
        <list-row
          :on="s.i === session.history?.now"
          :class="{ later: s.i > (session.history?.now ?? 0) }"
          @click="session.moveTo(s.i)"
        >
          <span class="label">{{ s.label }}</span><small class="quiet">{{ s.where }}</small
          ><small class="figures quiet">{{ time(s.at) }}</small>
        </list-row>
      </li>
    </ol>
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
