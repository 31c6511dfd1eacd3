<script setup lang="ts">
import { IconX } from '@tabler/icons-vue';
import { type Part, SIDES, composite, sideSuffix } from '@sphalerite/core/model';
import { deletePartEdit, joinPartsEdit } from '@sphalerite/core/project';
import { formOf } from '@sphalerite/core/sculpt';
import { computed, ref } from 'vue';
import NumberField from '../../../components/NumberField.vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { useSelection } from '../selection-state';
import { useApart } from './apart-state';

const apart = useApart();
const session = useSession();
const build = useBuild();
const selection = useSelection();
const WAYS = [
  ['Pieces', 'What hangs together by faces', apart.byPieces], ['Colours', 'One piece for each colour', apart.byColours], ['Patches', 'One piece for each connected patch of one colour', apart.byPatches],
  ['Layers', 'One piece for each layer above the lowest', apart.byLayers], ['Guide plane', 'What lies on the smaller side of it', apart.byPlane],
] as const;

const parts = computed(() => session.project?.parts ?? []);
const loose = computed(() => (session.project && session.project.rig.bones.length > 0 ? parts.value.filter((p) => !p.hidden && session.project!.rig.mounts.every((m) => m.part !== p.id || m.bone === null)) : []));
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
const other = ref('');
const mates = computed(() => parts.value.filter((p) => p.id !== session.part?.id && !p.hidden));
function join(): void {
  if (session.part && other.value && session.apply(joinPartsEdit, { parts: [session.part.id, other.value] })) other.value = '';
}
</script>

<template>
  <div>
    <section class="panel-section" aria-label="Take apart">
      <div class="panel-head"><h2>Take apart</h2><span v-if="session.part" class="quiet">{{ nameOf(session.part) }}</span></div>
      <p class="quiet">Say what becomes a part of its own. What is left stays together.</p>
      <button type="button" class="btn" :class="{ on: selection.selected !== null }" title="Alt+J" @click="apart.bySelection()">The selection is a piece</button>
      <div class="ways"><button v-for="[name, tip, go] in WAYS" :key="name" type="button" class="btn" :title="tip" @click="go()">{{ name }}</button></div>
      <ul v-if="apart.plans.length > 0" class="plans">
        <li v-for="(p, i) in apart.plans" :key="p.key" :class="{ on: p.key === apart.chosen }" @mouseenter="apart.chosen = p.key" @mouseleave="apart.chosen = -1">
          <span class="figures n">{{ i + 1 }}</span>
          <input class="text" :value="p.name" :aria-label="`Name of piece ${i + 1}`" maxlength="120" @keydown.stop @keydown.enter="($event.target as HTMLElement).blur()" @focus="apart.chosen = p.key" @change="apart.change(p.key, { name: ($event.target as HTMLInputElement).value.trim() || p.name })" />
          <select class="pick" :value="p.side" :aria-label="`Side of piece ${i + 1}`" @change="apart.change(p.key, { side: ($event.target as HTMLSelectElement).value as typeof p.side })"><option v-for="s in SIDES" :key="s" :value="s">{{ s === 'centre' ? '–' : s }}</option></select>
          <span class="figures quiet">{{ p.cells.count.toLocaleString('en') }}</span>
          <button type="button" class="bare small" :aria-label="`Not piece ${i + 1}`" @click="apart.drop(p.key)"><IconX aria-hidden="true" /></button>
        </li>
      </ul>
      <p v-if="apart.plans.length > 0" class="quiet figures">{{ (apart.free?.count ?? 0).toLocaleString('en') }} cubes stay “{{ session.part?.name }}”</p>
    </section>
    <section v-if="apart.plans.length > 0" class="panel-section" aria-label="How it is taken apart">
      <div class="row"><NumberField label="plug" name="Plug in cubes" :model-value="apart.plug" :min="0" :max="32" @change="(v) => (apart.plug = Math.round(v))" /><span class="quiet hint">into the piece it hangs on, so that nothing gapes</span></div>
      <label class="check"><input v-model="apart.bones" type="checkbox" />each on a new bone in its cut</label>
      <label class="check"><input v-model="apart.keepWhole" type="checkbox" />keep the whole aside, hidden</label>
      <button type="button" class="btn primary" @click="apart.take()">Take apart into {{ apart.plans.length + ((apart.free?.count ?? 0) > 0 ? 1 : 0) }} parts</button>
    </section>
    <section class="panel-section" aria-label="Join">
      <div class="panel-head"><h2>Join</h2></div>
      <div class="row"><select v-model="other" class="pick grow" aria-label="Join with"><option value="" disabled>with…</option><option v-for="p in mates" :key="p.id" :value="p.id">{{ nameOf(p) }}</option></select><button type="button" class="btn" :disabled="!other" @click="join">Join</button></div>
    </section>
    <section v-if="loose.length + empty.length + equal.length > 0" class="panel-section" aria-label="Parts to look at">
      <div class="panel-head"><h2>To look at</h2></div>
      <template v-if="loose.length > 0"><p class="quiet">On no bone:</p><button v-for="p in loose.slice(0, 8)" :key="p.id" type="button" class="link" @click="session.choose({ part: p.id, layer: null })">{{ nameOf(p) }}</button></template>
      <template v-if="empty.length > 0"><p class="quiet">Empty:</p><span v-for="p in empty.slice(0, 8)" :key="p.id" class="row"><button type="button" class="link" @click="session.choose({ part: p.id, layer: null })">{{ nameOf(p) }}</button><button type="button" class="link" :aria-label="`Delete empty ${nameOf(p)}`" @click="session.apply(deletePartEdit, { part: p.id })">to the bin</button></span></template>
      <template v-if="equal.length > 0"><p class="quiet">Cube for cube alike:</p><p v-for="g in equal.slice(0, 6)" :key="g[0]!.id"><template v-for="(p, i) in g.slice(0, 4)" :key="p.id"><span v-if="i > 0">, </span><button type="button" class="link" @click="session.choose({ part: p.id, layer: null })">{{ nameOf(p) }}</button></template></p></template>
    </section>
    <p v-if="build.seen?.count === 0" class="panel-section quiet">This part is empty.</p>
  </div>
</template>

<style scoped>
.ways { display: grid; grid-template-columns: repeat(6, 1fr); gap: 6px; }
.ways .btn { grid-column: span 2; }
.ways .btn:nth-child(n + 4) { grid-column: span 3; }
.ways .btn { padding: 0 4px; font-size: 12px; }
.plans { list-style: none; margin: 0; padding: 0; display: grid; gap: 3px; }
.plans li { display: grid; grid-template-columns: 14px minmax(0, 1fr) 52px auto 20px; align-items: center; gap: 4px; padding: 2px 3px; border-radius: var(--radius); font-size: 12px; }
.plans li.on { background: var(--honey-soft); }
.n { color: var(--quiet); font-size: 11px; }
.text { min-width: 0; height: 24px; padding: 0 6px; border: 1px solid var(--line); border-radius: 4px; background: var(--raised); }
.pick { min-width: 0; height: 24px; border: 1px solid var(--line); border-radius: 4px; background: var(--raised); color: var(--ink); font: inherit; font-size: 11px; }
.pick.grow { flex: 1; height: 28px; font-size: 12px; }
.plans .figures { font-size: 10.5px; }
.small { width: 20px; height: 20px; }
.small svg { width: 14px; height: 14px; }
.hint { font-size: 11.5px; line-height: 1.3; }
.row :deep(.number) { flex: 0 0 84px; }
.check { display: flex; gap: 6px; align-items: center; font-size: 12px; }
.check input { accent-color: var(--resin); margin: 0; }
.link { color: var(--resin); text-decoration: underline; font-size: 12px; text-align: left; }
</style>
