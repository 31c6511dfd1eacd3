<script setup lang="ts">
import { IconAlertTriangle, IconCheck, IconInfoCircle, IconX } from '@tabler/icons-vue';
import { noteText } from '@sphalerite/core/files';
import type { DeliveryFinding } from '@sphalerite/core/project';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import ActionButton from '../../components/ActionButton.vue';
import { useSession } from '../../stores/session';
import FaceChart from './FaceChart.vue';
import MakingProgress from './MakingProgress.vue';
import { useLinkedFolder } from './linked-folder';
import { useShip } from './ship-state';

const session = useSession();
const ship = useShip();
const folder = useLinkedFolder();
const router = useRouter();
const VERBS = { build: 'Show in Build', rig: 'Show in Rig', animate: 'Show in Animate' } as const;
const DOES = { 'drop hidden': 'Drop them', collider: 'Add boxes', base: 'Move it to the base' } as const;
const ICONS = { over: IconX, look: IconAlertTriangle, fine: IconCheck };

/** What the files themselves left out, each thing once. */
const notes = computed(() => [...new Set((ship.made?.delivered.formats ?? []).flatMap((f) => f.notes.map(noteText)))]);
const open = computed(() => ship.findings.filter((f) => f.level !== 'fine').length);
const gone = computed(() => folder.plan?.gone ?? []);

function go({ at }: DeliveryFinding): void {
  const p = session.project;
  if (!at || !p) return;
  session.choose(
    at.step === 'animate' ? { clip: at.id } : p.parts.some((o) => o.id === at.id) ? { part: at.id } : { bone: at.id },
  );
  void router.push({ name: 'bench', params: { id: p.id, step: at.step } });
}
function mend({ does }: DeliveryFinding): void {
  switch (does) {
    case 'drop hidden':
      return ship.change({ mesh: { dropHidden: true, watertight: false } });
    case 'collider':
      return ship.change({ collider: { shape: 'boxes' } });
    case 'base':
      return ship.change({ place: { origin: 'base' } });
    case null:
  }
}
</script>

<template>
  <div class="ship-bench">
    <section aria-label="Checks">
      <div class="panel-head">
        <h3>Checks</h3>
        <span v-if="ship.made" class="quiet">{{ open === 0 ? 'all in order' : `${open} to look at` }}</span>
      </div>
      <making-progress />
      <p v-if="ship.trouble" class="trouble"><IconX aria-hidden="true" />{{ ship.trouble }}</p>
      <ul>
        <li v-for="f in ship.findings" :key="f.text" :class="f.level">
          <component :is="ICONS[f.level]" aria-hidden="true" /><span class="said">{{ f.text }}</span
          ><action-button v-if="f.does" look="link" @click="mend(f)">{{ DOES[f.does] }}</action-button
          ><action-button v-if="f.at" look="link" @click="go(f)">{{ VERBS[f.at.step] }}</action-button>
        </li>
        <li v-for="n in notes" :key="n">
          <IconInfoCircle aria-hidden="true" /><span class="said">{{ n }}</span>
        </li>
        <li v-for="n in gone" :key="n" class="look">
          <IconAlertTriangle aria-hidden="true" /><span class="said"
            >{{ n }} in “{{ folder.handle?.name }}” is of an earlier delivery and no longer written; it still stands
            there</span
          >
        </li>
      </ul>
    </section>
    <section aria-label="Where the faces are"><face-chart /></section>
  </div>
</template>

<style scoped>
.ship-bench {
  display: grid;
  grid-template-columns: 1fr minmax(300px, 36%);
  height: 100%;
}
section {
  padding: 8px 14px;
  border-right: 1px solid var(--line);
  overflow: auto;
  min-width: 0;
}
ul {
  list-style: none;
  padding: 0;
  margin: 2px 0 0;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 5px 0;
  border-bottom: 1px solid color-mix(in srgb, var(--line) 60%, transparent);
}
.said {
  flex: 1;
}
li svg,
.trouble svg {
  width: 17px;
  height: 17px;
  flex: none;
}
.fine svg {
  color: var(--ok);
}
.look svg {
  color: var(--resin);
}
.over svg,
.trouble svg {
  color: var(--danger);
}
.trouble {
  display: flex;
  gap: 10px;
}
</style>
