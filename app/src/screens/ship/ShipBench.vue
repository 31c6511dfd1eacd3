<script setup lang="ts">
import { IconAlertTriangle, IconCheck, IconInfoCircle } from '@tabler/icons-vue';
import { countExposedFaces } from '@sphalerite/core/mesh';
import { composite, sideSuffix } from '@sphalerite/core/model';
import { computed } from 'vue';
import { useSession } from '../../stores/session';
import { useShip } from './ship-state';

const session = useSession();
const ship = useShip();

interface Check { readonly tone: 'ok' | 'warn' | 'info'; readonly text: string; readonly go?: { label: string; to: { name: string; params: Record<string, string> } } }
const checks = computed<Check[]>(() => {
  const p = session.project;
  if (!p) return [];
  const out: Check[] = [];
  const to = (step: string) => ({ name: 'bench', params: { id: p.id, step } });
  const loose = p.parts.filter((x) => p.rig.bones.length > 0 && (p.rig.mounts.find((m) => m.part === x.id)?.bone ?? null) === null);
  const empty = p.parts.filter((x) => composite(x).count === 0);
  const still = p.clips.filter((c) => c.lanes.length === 0);
  for (const x of loose) out.push({ tone: 'warn', text: `“${x.name}${sideSuffix(x.side)}” hangs on no bone, so no clip moves it.`, go: { label: 'Mount it in Rig', to: to('rig') } });
  for (const x of empty) out.push({ tone: 'warn', text: `“${x.name}” is empty and stays out of the file.`, go: { label: 'Show in Build', to: to('build') } });
  for (const c of still) out.push({ tone: 'warn', text: `Clip “${c.name}” has no keys and stays out of the file.`, go: { label: 'Show in Animate', to: to('animate') } });
  for (const n of ship.made?.notes ?? []) if (!out.some((o) => o.text === n)) out.push({ tone: 'info', text: n });
  if (out.every((o) => o.tone !== 'warn')) out.unshift({ tone: 'ok', text: 'Every part is mounted and filled, every clip has keys.' });
  return out;
});
const faces = computed(() => (ship.made ? { before: ship.made.project.parts.filter((p) => !p.hidden).reduce((n, p) => n + exposedOf(p), 0) * 2, after: ship.made.counts.triangles } : null));
const known = new WeakMap<object, number>();
function exposedOf(part: Parameters<typeof composite>[0]): number {
  const g = composite(part);
  // Counting one by one is for small parts only; large ones are told by the worker's own figures.
  if (g.count > 60_000) return 0;
  let n = known.get(g);
  if (n === undefined) known.set(g, (n = countExposedFaces(g)));
  return n;
}
</script>

<template>
  <div class="ship-bench">
    <section aria-label="Checks">
      <h3>Checks</h3>
      <ul>
        <li v-for="c in checks" :key="c.text" :class="c.tone">
          <IconCheck v-if="c.tone === 'ok'" aria-hidden="true" /><IconAlertTriangle v-else-if="c.tone === 'warn'" aria-hidden="true" /><IconInfoCircle v-else aria-hidden="true" />
          <span>{{ c.text }}</span><router-link v-if="c.go" :to="c.go.to">{{ c.go.label }}</router-link>
        </li>
      </ul>
    </section>
    <section v-if="faces" aria-label="Merging">
      <h3>Flat faces merged</h3>
      <p class="big figures">{{ faces.before.toLocaleString('en') }} <span class="quiet">→</span> {{ faces.after.toLocaleString('en') }} <small class="quiet">triangles</small></p>
      <div class="bars" aria-hidden="true"><i class="before" /><i class="after" :style="{ width: `${Math.min(100, (100 * faces.after) / Math.max(1, faces.before))}%` }" /></div>
    </section>
  </div>
</template>

<style scoped>
.ship-bench { display: grid; grid-template-columns: 1fr 340px; height: 100%; overflow: auto; }
section { padding: 12px 14px; border-right: 1px solid var(--line); }
ul { list-style: none; padding: 0; margin: 8px 0 0; display: grid; gap: 6px; }
li { display: flex; gap: 8px; align-items: center; }
li svg { width: 18px; height: 18px; flex: none; }
.ok { color: var(--ok); }
.warn svg { color: var(--resin); }
li a { color: var(--resin); }
.big { font-size: 18px; margin: 8px 0; }
.bars { display: grid; gap: 4px; }
.bars i { display: block; height: 10px; border-radius: 3px; }
.before { background: var(--line); }
.after { background: var(--honey); }
</style>
