<script setup lang="ts">
import { IconBoxMultiple, IconPlus } from '@tabler/icons-vue';
import { type Id, find, isWorn, looseParts, sideSuffix, steeringBones } from '@sphalerite/core/model';
import {
  type MountProposal,
  each,
  mountPartEdit,
  mountPartsEdit,
  proposeMounts,
  renameBoneEdit,
  renamePartEdit,
  reparentBoneEdit,
  tryPartEdit,
} from '@sphalerite/core/project';
import { childrenOf } from '@sphalerite/core/rig';
import { computed, ref, watch } from 'vue';
import BinList from '../../components/BinList.vue';
import { runCommand } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { useWayBack } from '../../stores/way-back';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import EmptyState from '../../components/EmptyState.vue';
import FormRow from '../../components/FormRow.vue';
import SelectField from '../../components/SelectField.vue';
import TextField from '../../components/TextField.vue';
import TreeView from '../../components/TreeView.vue';
import { type Dragged, vDrag } from '../../components/drag';
import { type TreeRow, seenRows } from '../../components/tree';
import { counted } from '../../words';
import { renamed } from '../shared/renamed';
import PartPicture from '../../components/PartPicture.vue';
import SideTag from '../../components/SideTag.vue';

const dialogs = useDialogs();
const session = useSession();
const notices = useNotices();
const way = useWayBack();
const { settings } = useSettings();

const bones = computed(() => new Map(session.project?.rig.bones.map((b) => [b.id, b])));
const count = computed(() => bones.value.size);
/** Parts on each bone. */
const parts = computed(() => {
  const n = new Map<Id, number>();
  for (const { bone } of session.project?.rig.mounts ?? []) if (bone) n.set(bone, (n.get(bone) ?? 0) + 1);
  return n;
});
/** What hangs on bones, by the id of its mount: a part may hang on several. */
const mounted = computed(
  () =>
    new Map(
      (session.project?.rig.mounts ?? []).flatMap((mount) => {
        const part = mount.bone !== null && find(session.project!.parts, mount.part);
        return part ? [[mount.id, { mount, part, bone: mount.bone! }] as const] : [];
      }),
    ),
);
/** The row of a part that was chosen here last; else the bone in hand is. */
const partRow = ref('');
const boneOf = (row: Id | null): Id | null => (row === null ? null : (mounted.value.get(row)?.bone ?? row));
const rows = computed((): readonly TreeRow[] => {
  const p = session.project;
  if (!p) return [];
  const children = childrenOf(p.rig);
  const onBone = new Map<Id, TreeRow[]>();
  if (settings.partsOnBones)
    for (const [id, { part, bone }] of mounted.value) {
      const row = { id, name: part.name, label: `Part ${part.name}${sideSuffix(part.side)}` };
      onBone.set(bone, [...(onBone.get(bone) ?? []), row]);
    }
  const below = (parent: Id | null): TreeRow[] =>
    (children.get(parent) ?? []).map((b): TreeRow => {
      const list = [...(onBone.get(b.id) ?? []), ...below(b.id)];
      return {
        id: b.id,
        name: b.name,
        ...(b.side === 'centre' ? {} : { more: b.side }),
        ...(list.length > 0 ? { children: list } : {}),
      };
    });
  return below(null);
});
const order = computed(() =>
  seenRows(rows.value, new Set())
    .map((s) => s.row.id)
    .filter((id) => bones.value.has(id)),
);
const boneChoices = computed(() => [
  { value: '', text: 'none' },
  ...order.value.map((id) => {
    const b = bones.value.get(id)!;
    return { value: id, text: b.name + sideSuffix(b.side) };
  }),
]);
/** Above so many, a bone is found by its name. */
const MANY = 20;
const words = ref('');
/** One of several alternates, which another is worn instead of. */
function notWorn(id: Id): boolean {
  const on = mounted.value.get(id);
  return on !== undefined && !isWorn(session.project!.rig, on.mount);
}
const controls = computed(() => (session.project ? steeringBones(session.project.rig) : new Set<Id>()));
const loose = computed(() => (session.project ? looseParts(session.project) : []));

/** Bones proposed for the parts that hang on none; a bone may be chosen anew, or none. */
const proposals = ref<{ part: Id; name: string; bone: Id; why: MountProposal['why'] }[]>([]);
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
function pick(id: Id, e: MouseEvent | KeyboardEvent): void {
  const on = mounted.value.get(id);
  partRow.value = on ? id : '';
  if (on) session.choose({ bone: on.bone, part: on.part.id, layer: null });
  else session.pick('bone', id, e, order.value);
}
watch(
  () => session.hand.bone,
  (bone) => {
    if (mounted.value.get(partRow.value)?.bone !== bone) partRow.value = '';
  },
);
const openRow = (id: Id): void => void way.open(mounted.value.get(id)!.part.id).catch(notices.fail);
function renameRow(id: Id, name: string): void {
  const part = mounted.value.get(id)?.part.id;
  if (part) renamed(renamePartEdit, { part, name }, (p) => find(p.parts, part)?.name);
  else renamed(renameBoneEdit, { bone: id, name }, (p) => find(p.rig.bones, id)?.name);
}
function draggedRow(id: Id): Dragged | null {
  const on = mounted.value.get(id);
  return on ? { kind: 'part', ids: [on.part.id], label: on.part.name } : null;
}
const accepts = (what: Dragged, row: Id | null): boolean =>
  what.kind === 'part' || (what.kind === 'bone' && (row === null || !what.ids.includes(boneOf(row)!)));
function drop(what: Dragged, row: Id | null): void {
  const bone = boneOf(row);
  if (what.kind === 'bone') {
    session.apply(
      each(reparentBoneEdit),
      what.ids.map((id) => ({ bone: id, parent: bone })),
    );
    return;
  }
  // On a sealed rig a part that comes onto a bone is tried in place of what is there.
  const [part] = what.ids as [Id];
  const p = session.project!,
    there =
      p.seal && bone ? p.rig.mounts.find((m) => m.bone === bone && m.part !== part && isWorn(p.rig, m)) : undefined;
  if (there) session.apply(tryPartEdit, { part, instead: there.id });
  else if (bone) session.apply(mountPartsEdit, { pairs: what.ids.map((id) => ({ part: id, bone })) });
  else
    session.apply(
      each(mountPartEdit),
      what.ids.map((id) => ({ part: id, bone })),
    );
}
/** By keys: under the bone above it, or out from under its parent. */
function nudge(bone: Id, by: 'up' | 'down' | 'in' | 'out'): void {
  const on = mounted.value.get(bone);
  if (on) {
    const to = order.value[order.value.indexOf(on.bone) + (by === 'up' || by === 'out' ? -1 : 1)];
    if (to) session.apply(mountPartsEdit, { pairs: [{ part: on.part.id, bone: to }] });
    return;
  }
  const all = bones.value,
    parent = all.get(bone)?.parent ?? null;
  const siblings = order.value.filter((id) => (all.get(id)?.parent ?? null) === parent);
  if (by === 'out' && parent) session.apply(reparentBoneEdit, { bone, parent: all.get(parent)?.parent ?? null });
  const above = siblings[siblings.indexOf(bone) - 1];
  if (by === 'in' && above) session.apply(reparentBoneEdit, { bone, parent: above });
}
function menuOf(e: MouseEvent, bone: Id): void {
  if (mounted.value.has(bone)) {
    pick(bone, e);
    dialogs.openMenu(e, ['part.open', 'part.unmount']);
    return;
  }
  if (!session.view.chosen.bone.includes(bone)) session.choose({ bone });
  dialogs.openMenu(e, [
    'part.open',
    'bone.partNew',
    'bone.new',
    'bone.above',
    'bone.duplicate',
    'bone.flipX',
    'bone.root',
    'rig.turn',
    'rig.joint',
    'rig.reset',
    'bone.delete',
  ]);
}
</script>

<template>
  <div class="tray">
    <div class="panel-head tray-head">
      <h2>
        Bones <span class="figures quiet">{{ count }}</span>
      </h2>
      <span class="heads"
        ><icon-button
          :icon="IconBoxMultiple"
          :label="settings.partsOnBones ? 'Show bones alone' : 'Show the parts on the bones'"
          :aria-pressed="settings.partsOnBones"
          @click="settings.partsOnBones = !settings.partsOnBones" /><icon-button
          :icon="IconPlus"
          label="New bone"
          keys="B"
          @click="runCommand('bone.new').catch(notices.fail)"
      /></span>
    </div>
    <text-field
      v-if="count > MANY"
      v-model="words"
      class="filter"
      label="Bones whose name holds"
      placeholder="filter…"
    />
    <tree-view
      :rows="rows"
      label="Bones"
      kind="bone"
      :size="27"
      :words="words"
      :hand="partRow || session.hand.bone"
      :chosen="session.view.chosen.bone"
      :can-rename="session.writable"
      :accepts="accepts"
      :opens="(id) => mounted.has(id)"
      :dragged="draggedRow"
      nests
      @pick="pick"
      @open="openRow"
      @rename="renameRow"
      @menu="menuOf"
      @drop="drop"
      @nudge="nudge"
    >
      <template #picture="{ row }"
        ><PartPicture
          v-if="mounted.has(row.id)"
          class="small"
          :project="session.inActiveColourway!"
          :part="mounted.get(row.id)!.part" /><i v-else class="dot" :class="bones.get(row.id)?.side" aria-hidden="true"
      /></template>
      <template #name="{ row }"
        ><span class="tree-name" :class="{ quiet: mounted.has(row.id), off: notWorn(row.id) }">{{
          row.name
        }}</span></template
      >
      <template #after="{ row }">
        <side-tag :side="bones.get(row.id)?.side" />
        <span v-if="controls.has(row.id)" class="tag" data-tip="Steers other bones">control</span>
        <small v-if="!settings.partsOnBones && (parts.get(row.id) ?? 0) > 1" class="quiet">{{
          counted(parts.get(row.id) ?? 0, 'parts')
        }}</small>
      </template>
    </tree-view>
    <template v-if="loose.length > 0">
      <div class="panel-head tray-head">
        <h2>
          Not mounted <span class="figures quiet">{{ loose.length }}</span>
        </h2>
      </div>
      <p class="quiet hint">
        Drag a part onto a bone, or
        <action-button look="link" :disabled="count === 0" @click="propose">propose bones</action-button>.
      </p>
      <div v-if="proposals.length > 0" class="propose" role="group" aria-label="Proposed bones">
        <form-row v-for="p in proposals" :key="p.part" :label="p.name" :data-tip="p.why"
          ><SelectField v-model="p.bone" :label="`Bone for ${p.name}`" :choices="boneChoices"
        /></form-row>
        <action-button look="primary" @click="mount">
          Mount {{ proposals.filter((p) => p.bone !== '').length }} in place
        </action-button>
      </div>
      <action-button
        v-if="loose.length > 1"
        look="link"
        class="hint"
        @click="runCommand('rig.dropLoose').catch(notices.fail)"
      >
        Delete all {{ loose.length }}
      </action-button>
      <ul class="tray-list">
        <li v-for="p in loose" :key="p.id">
          <span v-drag="() => ({ kind: 'part', ids: [p.id], label: p.name })" class="loose">{{
            p.name + sideSuffix(p.side)
          }}</span>
        </li>
      </ul>
    </template>
    <div class="many rigs">
      <action-button v-if="count > 1" look="link" @click="runCommand('bone.renameMany').catch(notices.fail)">
        Rename many…</action-button
      ><action-button look="link" @click="runCommand('rig.bring').catch(notices.fail)">Bring in a rig…</action-button
      ><action-button v-if="count > 0" look="link" @click="runCommand('rig.keep').catch(notices.fail)">
        Save as a ready rig…
      </action-button>
    </div>
    <BinList kind="bone" />
    <empty-state v-if="count === 0" text="No bones yet. B makes the first one; then drag parts onto it." />
  </div>
</template>

<style scoped>
.heads {
  display: flex;
}
.small.picture {
  flex: none;
  width: 22px;
  height: 22px;
}
.off {
  text-decoration: line-through;
  text-decoration-color: var(--line);
}
.dot {
  flex: none;
  width: 7px;
  height: 7px;
  border-radius: 50%;
  background: var(--quiet);
}
.dot.left {
  background: var(--side-left);
}
.dot.right {
  background: var(--side-right);
}
.hint {
  padding: 0 12px 8px;
}
.propose,
.many {
  display: grid;
  gap: 5px;
  padding: 0 12px 10px;
  font-size: 12px;
}
.many {
  justify-items: start;
}
.filter {
  margin: 0 12px 6px;
  width: calc(100% - 24px);
}
.loose {
  display: block;
  padding: 4px 12px;
  cursor: grab;
  touch-action: none;
}
.loose:hover {
  background: color-mix(in srgb, var(--honey-soft) 55%, transparent);
}
</style>
