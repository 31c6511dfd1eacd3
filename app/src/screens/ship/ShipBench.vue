<script setup lang="ts">
import { IconAlertTriangle, IconCheck, IconInfoCircle } from '@tabler/icons-vue';
import { type NoteCode, noteText } from '@sphalerite/core/files';
import { checkProject } from '@sphalerite/core/project';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useSession } from '../../stores/session';
import { useShip } from './ship-state';
import ActionButton from '../../components/ActionButton.vue';

const session = useSession();
const ship = useShip();
const router = useRouter();
const VERBS = { build: 'Show in Build', rig: 'Mount it in Rig', animate: 'Show in Animate' } as const;

/** What the checks say already. */
const CHECKED: ReadonlySet<NoteCode> = new Set<NoteCode>(['partEmpty', 'clipEmpty']);
const findings = computed(() => (session.project ? checkProject(session.project) : []));
/** What the file itself left out, said once. */
const notes = computed(() => (ship.made?.notes ?? []).filter((n) => !CHECKED.has(n.code)).map(noteText));
const faces = computed(() => {
  const { faces: before, triangles: after } = ship.made?.counts ?? {};
  return before === undefined || after === undefined ? null : { before: before * 2, after };
});
function go(f: (typeof findings.value)[number]): void {
  session.choose(
    f.step === 'animate'
      ? { clip: f.id }
      : session.project!.parts.some((p) => p.id === f.id)
        ? { part: f.id }
        : { bone: f.id },
  );
  void router.push({ name: 'bench', params: { id: session.project!.id, step: f.step } });
}
</script>

<template>
  <div class="ship-bench">
    <section aria-label="Checks">
      <h3>Checks</h3>
      <ul>
        <li v-if="findings.length === 0" class="ok">
          <IconCheck aria-hidden="true" />Every part is mounted and filled, every clip has keys.
        </li>
        <li v-for="f in findings" :key="f.text" class="warn">
          <IconAlertTriangle aria-hidden="true" /><span>{{ f.text }}</span
          ><action-button look="link" @click="go(f)">{{ VERBS[f.step] }}</action-button>
        </li>
        <li v-for="n in notes" :key="n">
          <IconInfoCircle aria-hidden="true" /><span>{{ n }}</span>
        </li>
      </ul>
    </section>
    <section v-if="faces" aria-label="Merging">
      <h3>Flat faces merged</h3>
      <p class="big figures">
        {{ faces.before.toLocaleString('en') }} <span class="quiet">→</span> {{ faces.after.toLocaleString('en') }}
        <small class="quiet">triangles</small>
      </p>
      <div class="bars" aria-hidden="true">
        <i class="before" /><i
          class="after"
          :style="{ width: `${Math.min(100, (100 * faces.after) / Math.max(1, faces.before))}%` }"
        />
      </div>
    </section>
  </div>
</template>

<style scoped>
.ship-bench {
  display: grid;
  grid-template-columns: 1fr 340px;
  height: 100%;
  overflow: auto;
}
section {
  padding: 12px 14px;
  border-right: 1px solid var(--line);
}
ul {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  display: grid;
  gap: 6px;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
}
li svg {
  width: 18px;
  height: 18px;
  flex: none;
}
.ok {
  color: var(--ok);
}
.warn svg {
  color: var(--resin);
}
.big {
  font-size: 18px;
  margin: 8px 0;
}
.bars {
  display: grid;
  gap: 4px;
}
.bars i {
  display: block;
  height: 10px;
  border-radius: 3px;
}
.before {
  background: var(--line);
}
.after {
  background: var(--honey);
}
</style>
