<script setup lang="ts">
import { placementName } from '@sphalerite/core/model';
import { linkPartsEdit } from '@sphalerite/core/project';
import type { SceneFinding } from '@sphalerite/core/scene';
import { computed, onUnmounted, ref, shallowRef, watch } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { sharedPool } from '../../workers/pool';
import { JobCancelled } from '../../workers/protocol';
import { findingText } from './finding-text';

/** What of the scene has the most faces, and what is odd about it; read by a worker a little after the hand rests. */
const session = useSession();
const notices = useNotices();
const MOST = 6;
const MOST_FINDINGS = 40;
const tab = ref<'costs' | 'checks'>('costs');
interface CostRow {
  readonly name: string;
  readonly times: string;
  readonly placements: readonly string[];
  readonly faces: number;
}
const rows = shallowRef<readonly CostRow[]>([]);
const findings = shallowRef<readonly SceneFinding[]>([]);
let timer: ReturnType<typeof setTimeout> | undefined;
let stop: AbortController | null = null;
watch(
  () => [session.project, session.scene?.id] as const,
  () => {
    clearTimeout(timer);
    timer = setTimeout(() => void read(), rows.value.length > 0 ? 500 : 0);
  },
  { immediate: true },
);
onUnmounted(() => {
  clearTimeout(timer);
  stop?.abort();
});
async function read(): Promise<void> {
  stop?.abort();
  const { project, scene } = session;
  if (!project || !scene) {
    rows.value = findings.value = [];
    return;
  }
  const mine = (stop = new AbortController());
  try {
    const found = await sharedPool().run('scene', (sent) => ({ project: sent.packProject(project), scene: scene.id }), {
      signal: mine.signal,
    });
    const byId = new Map(scene.placements.flat().map((p) => [p.id, p]));
    rows.value = found.costs.flatMap(({ placements, faces }): CostRow[] => {
      const first = byId.get(placements[0]!),
        n = placements.length;
      if (!first) return [];
      const name = placementName(project, n > 1 ? { ...first, name: '' } : first);
      return [{ name, times: n > 1 ? `×${n}` : '', placements, faces }];
    });
    findings.value = found.findings;
  } catch (e) {
    if (!(e instanceof JobCancelled) && !mine.signal.aborted) notices.fail(e);
  }
}
const nameOf = (id: string): string => {
  const p = session.scene?.placements.flat().find((o) => o.id === id);
  return p ? placementName(session.project!, p) : 'something';
};
const look = (f: SceneFinding): void => session.choose({ placement: f.placements, lamp: null });
const all = computed(() => rows.value.reduce((n, r) => n + r.faces, 0));
const top = computed(() => {
  const first = rows.value.slice(0, MOST),
    rest = rows.value.slice(MOST).reduce((n, r) => n + r.faces, 0);
  return rest > 0 ? [...first, { name: 'the rest', times: '', placements: [], faces: rest }] : first;
});
const share = (faces: number): string => `${(100 * faces) / Math.max(1, ...top.value.map((t) => t.faces))}%`;
</script>

<template>
  <div>
    <div class="head">
      <choice-field
        v-model="tab"
        label="What is told of the scene"
        :choices="[
          { value: 'costs', text: 'What it costs', name: 'What it costs' },
          { value: 'checks', text: `To look at ${findings.length}`, name: 'What to look at' },
        ]"
      />
      <span class="quiet figures">{{ all.toLocaleString('en') }} faces</span>
    </div>
    <template v-if="tab === 'checks'">
      <p v-for="(f, i) in findings.slice(0, MOST_FINDINGS)" :key="i" class="finding">
        <span>{{ findingText(f, nameOf) }}</span>
        <action-button
          v-if="f.code === 'alike'"
          tip="All show one part from then on"
          @click="session.apply(linkPartsEdit, f)"
          >Link</action-button
        >
        <action-button tip="Chooses it in the view" @click="look(f)">Show</action-button>
      </p>
      <p v-if="findings.length === 0" class="quiet">
        Nothing stands out: all stands on something, and nothing in anything.
      </p>
      <p v-else-if="findings.length > MOST_FINDINGS" class="quiet">and {{ findings.length - MOST_FINDINGS }} more</p>
    </template>
    <p v-for="(r, i) in tab === 'costs' ? top : []" :key="i" class="cost">
      <action-button
        v-if="r.placements.length > 0"
        look="bare"
        class="name"
        tip="Chooses all that show it"
        @click="session.choose({ placement: r.placements, lamp: null })"
        >{{ r.name }} <span class="quiet figures">{{ r.times }}</span></action-button
      ><span v-else class="name">{{ r.name }}</span
      ><span class="bar" aria-hidden="true"><i :style="{ width: share(r.faces) }" /></span
      ><span class="figures">{{ r.faces.toLocaleString('en') }}</span>
    </p>
    <p v-if="tab === 'costs' && top.length === 0" class="quiet">Nothing stands in the scene yet.</p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 4px;
}
.cost {
  display: grid;
  grid-template-columns: 108px minmax(0, 1fr) 64px;
  gap: 10px;
  align-items: center;
  margin: 3px 0;
}
button.name {
  justify-content: start;
  min-width: 0;
  padding: 0;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bar {
  height: 7px;
  border-radius: 4px;
  background: color-mix(in srgb, var(--honey) 16%, transparent);
}
.bar i {
  display: block;
  height: 100%;
  border-radius: 4px;
  background: var(--honey);
}
.figures {
  text-align: right;
}
.finding {
  display: flex;
  gap: 6px;
  align-items: center;
  margin: 0 0 4px;
}
.finding > :first-child {
  flex: 1;
}
</style>
