<script setup lang="ts">
import { IconPlus } from '@tabler/icons-vue';
import { type Bone, type Id, constraintTargets, isWorn, sideSuffix } from '@sphalerite/core/model';
import {
  type MountProposal,
  mountPartEdit,
  mountPartsEdit,
  proposeMounts,
  renameManyEdit,
  reparentBoneEdit,
  tryPartEdit,
} from '@sphalerite/core/project';
import { childrenOf } from '@sphalerite/core/rig';
import { computed, ref, watch } from 'vue';
import BinList from '../../components/BinList.vue';
import { runCommand } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { useRig } from './rig-state';
import { useSession } from '../../stores/session';

const dialogs = useDialogs();
const rig = useRig();
const session = useSession();
const notices = useNotices();
const dragged = ref<{ kind: 'bone' | 'part'; id: Id } | null>(null);
const over = ref<Id | null>(null);

const rows = computed(() => {
  const p = session.project;
  if (!p) return [];
  const children = childrenOf(p.rig);
  const out: { bone: Bone; depth: number; parts: { id: Id; name: string }[] }[] = [];
  const visit = (parent: Id | null, depth: number): void => {
    for (const bone of children.get(parent) ?? []) {
      const parts = p.rig.mounts
        .filter((m) => m.bone === bone.id)
        .flatMap((m) => p.parts.filter((x) => x.id === m.part).map((x) => ({ id: x.id, name: x.name })));
      out.push({ bone, depth, parts });
      visit(bone.id, depth + 1);
    }
  };
  visit(null, 0);
  return out;
});
const order = computed(() => rows.value.map((r) => r.bone.id));
const controls = computed(() => new Set(session.project?.rig.constraints.flatMap(constraintTargets)));
const loose = computed(() => {
  const p = session.project;
  return p ? p.parts.filter((x) => (p.rig.mounts.find((m) => m.part === x.id)?.bone ?? null) === null) : [];
});

/** Bones proposed for the parts that hang on none; a bone may be chosen anew, or none. */
const proposals = ref<{ part: Id; name: string; bone: Id | ''; why: MountProposal['why'] }[]>([]);
function propose(): void {
  proposals.value = proposeMounts(session.project!).map((m) => ({
    part: m.part.id,
    name: m.part.name + sideSuffix(m.part.side),
    bone: m.bone.id,
    why: m.why,
  }));
}
function mount(): void {
  const pairs = proposals.value.filter((p) => p.bone !== '').map((p) => ({ part: p.part, bone: p.bone }));
  if (pairs.length > 0) session.apply(mountPartsEdit, { pairs });
  proposals.value = [];
}
watch(loose, (now) => {
  proposals.value = proposals.value.filter((p) => now.some((o) => o.id === p.part));
});
const find = ref('');
const replace = ref('');
const renaming = ref(false);
function rename(): void {
  if (session.apply(renameManyEdit, { what: 'bones', find: find.value, replace: replace.value }))
    find.value = replace.value = '';
}

function drop(bone: Id | null): void {
  const d = dragged.value;
  dragged.value = over.value = null;
  if (!d) return;
  if (d.kind === 'bone' && d.id !== bone) session.apply(reparentBoneEdit, { bone: d.id, parent: bone });
  if (d.kind !== 'part') return;
  // On a sealed rig a part that comes onto a bone is tried in place of what is there.
  const p = session.project!,
    there =
      p.seal && bone ? p.rig.mounts.find((m) => m.bone === bone && m.part !== d.id && isWorn(p.rig, m)) : undefined;
  if (there) session.apply(tryPartEdit, { part: d.id, instead: there.id });
  else session.apply(mountPartEdit, { part: d.id, bone });
}
function take(part: Id): void {
  dragged.value = { kind: 'part', id: part };
  rig.draggedPart = part;
}
function menuOf(e: MouseEvent, bone: Id): void {
  if (!session.view.chosen.bone.includes(bone)) session.choose({ bone });
  dialogs.openMenu(e, ['rig.turn', 'rig.joint', 'rig.reset', 'bone.new', 'bone.delete']);
}
function walk(e: KeyboardEvent, i: number): void {
  const by = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
  const next = rows.value[i + by];
  if (!by || !next) return;
  e.preventDefault();
  e.stopPropagation();
  session.choose({ bone: next.bone.id });
  (e.currentTarget as HTMLElement).closest('ul')?.querySelectorAll<HTMLElement>('.bone')[i + by]?.focus();
}
</script>

<template>
  <div class="tray">
    <div class="panel-head tray-head">
      <h2>
        Bones <span class="figures quiet">{{ rows.length }}</span>
      </h2>
      <button
        type="button"
        class="bare"
        aria-label="New bone"
        title="New bone · B"
        @click="runCommand('bone.new').catch(notices.fail)"
      >
        <IconPlus aria-hidden="true" />
      </button>
    </div>
    <ul class="tray-list" role="tree" aria-label="Bones" @dragover.prevent @drop.prevent="drop(null)">
      <li v-for="(r, i) in rows" :key="r.bone.id" role="none">
        <button
          type="button"
          class="list-row bone"
          role="treeitem"
          draggable="true"
          :class="{
            on: r.bone.id === session.hand.bone,
            also: session.view.chosen.bone.includes(r.bone.id),
            over: over === r.bone.id,
          }"
          :aria-selected="session.view.chosen.bone.includes(r.bone.id)"
          :aria-level="r.depth + 1"
          :style="{ paddingLeft: `${9 + r.depth * 13}px` }"
          @click="session.pick('bone', r.bone.id, $event, order)"
          @contextmenu.prevent="menuOf($event, r.bone.id)"
          @keydown="walk($event, i)"
          @dragstart="dragged = { kind: 'bone', id: r.bone.id }"
          @dragover.prevent="over = r.bone.id"
          @dragleave="over = null"
          @drop.prevent.stop="drop(r.bone.id)"
        >
          <i class="dot" :class="r.bone.side" aria-hidden="true" /><span class="name">{{ r.bone.name }}</span
          ><span v-if="r.bone.side !== 'centre'" class="tag">{{ r.bone.side }}</span>
          <span v-if="controls.has(r.bone.id)" class="tag" title="Steers other bones">control</span
          ><small class="quiet">{{ r.parts.length > 1 ? `${r.parts.length} parts` : '' }}</small>
        </button>
      </li>
    </ul>
    <template v-if="loose.length > 0">
      <div class="panel-head tray-head">
        <h2>
          Not mounted <span class="figures quiet">{{ loose.length }}</span>
        </h2>
      </div>
      <p class="quiet hint">
        Drag a part onto a bone, or
        <button type="button" class="link" :disabled="rows.length === 0" @click="propose">propose bones</button>.
      </p>
      <div v-if="proposals.length > 0" class="propose" role="group" aria-label="Proposed bones">
        <label v-for="p in proposals" :key="p.part" :title="p.why"
          ><span>{{ p.name }}</span
          ><select v-model="p.bone" class="pick" :aria-label="`Bone for ${p.name}`">
            <option value="">none</option>
            <option v-for="r in rows" :key="r.bone.id" :value="r.bone.id">
              {{ r.bone.name + sideSuffix(r.bone.side) }}
            </option>
          </select></label
        >
        <button type="button" class="btn primary" @click="mount">
          Mount {{ proposals.filter((p) => p.bone !== '').length }} in place
        </button>
      </div>
      <button
        v-if="loose.length > 1"
        type="button"
        class="link hint"
        @click="runCommand('rig.dropLoose').catch(notices.fail)"
      >
        Delete all {{ loose.length }}
      </button>
      <ul class="tray-list">
        <li v-for="p in loose" :key="p.id">
          <span class="list-row" draggable="true" @dragstart="take(p.id)" @dragend="rig.draggedPart = null">{{
            p.name
          }}</span>
        </li>
      </ul>
    </template>
    <div v-if="rows.length > 1" class="many">
      <button type="button" class="link" :aria-expanded="renaming" @click="renaming = !renaming">Rename many…</button>
      <div v-if="renaming" class="row">
        <input v-model="find" class="pick" aria-label="Replace in names" placeholder="replace" @keydown.stop /><input
          v-model="replace"
          class="pick"
          aria-label="By"
          placeholder="by"
          @keydown.stop
          @keydown.enter="rename"
        /><button type="button" class="btn" :disabled="find === ''" @click="rename">Do</button>
      </div>
    </div>
    <div class="many rigs">
      <button type="button" class="link" @click="runCommand('rig.bring').catch(notices.fail)">Bring in a rig…</button
      ><button v-if="rows.length > 0" type="button" class="link" @click="runCommand('rig.keep').catch(notices.fail)">
        Save as a ready rig…
      </button>
    </div>
    <BinList kind="bone" />
    <p v-if="rows.length === 0" class="quiet hint">No bones yet. B makes the first one; then drag parts onto it.</p>
  </div>
</template>

<style scoped>
.bone {
  min-height: 26px;
  padding-block: 2px;
}
.bone.on .name {
  font-weight: 600;
}
.bone.over {
  box-shadow: inset 0 0 0 2px var(--honey);
}
.dot {
  flex: none;
  width: 7px;
  height: 7px;
  border-radius: 50%;
  background: var(--quiet);
}
.dot.left {
  background: var(--verdigris);
}
.dot.right {
  background: var(--resin);
}
.name {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.hint {
  padding: 0 12px 8px;
}
.link {
  color: var(--resin);
  text-decoration: underline;
}
.propose,
.many {
  display: grid;
  gap: 5px;
  padding: 0 12px 10px;
  font-size: 12px;
}
.propose label {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px;
  align-items: center;
}
.propose span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.many {
  justify-items: start;
}
.hint.link {
  padding-top: 0;
}
.pick {
  min-width: 0;
  width: 100%;
  height: 26px;
  padding: 0 5px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
}
</style>
