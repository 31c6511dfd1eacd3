<script setup lang="ts">
import { historyBytes } from '@sphalerite/core/project';
import { ElDialog } from 'element-plus';
import { computed } from 'vue';
import { useSession } from '../stores/session';
import { useDialogs } from '../stores/dialogs';

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
  <el-dialog v-model="dialogs.history" title="History" width="440px" align-center>
    <p class="quiet">
      Click a step to go back or forward to it. Nothing is lost until you change something from there. Memory:
      <span class="figures">{{ memory }}</span>
    </p>
    <ol class="steps">
      <li v-for="s in steps" :key="s.i">
        <button
          type="button"
          class="list-row"
          :class="{ on: s.i === session.history?.now, later: s.i > (session.history?.now ?? 0) }"
          @click="session.moveTo(s.i)"
        >
          <span class="label">{{ s.label }}</span><small class="quiet">{{ s.where }}</small
          ><small class="figures quiet">{{ time(s.at) }}</small>
        </button>
      </li>
    </ol>
  </el-dialog>
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
