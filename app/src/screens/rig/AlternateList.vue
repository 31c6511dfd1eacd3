<script setup lang="ts">
import { type Bone, type Mount, type Part, sideSuffix } from '@sphalerite/core/model';
import {
  leaveAlternateSetEdit,
  makeAlternateSetEdit,
  mountPartEdit,
  mountPartsEdit,
  renameAlternateSetEdit,
  shrinkSlightlyEdit,
  tryPartEdit,
  wearEdit,
} from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import PartPicture from '../../components/PartPicture.vue';
import { useRig } from './rig-state';
import { useSession } from '../../stores/session';

/** What is mounted on the bone: parts that are always there, and sets of alternates that wear one of several. A part dropped on one is tried instead. */
const props = defineProps<{ bone: Bone; flicker: ReadonlyMap<string, string> }>();
const rig = useRig();
const session = useSession();
const over = ref('');
const rows = computed(() => {
  const p = session.project!;
  const mine = p.rig.mounts
    .filter((m) => m.bone === props.bone.id)
    .flatMap((mount): { mount: Mount; part: Part }[] =>
      p.parts.filter((x) => x.id === mount.part).map((part) => ({ mount, part })),
    );
  return {
    always: mine.filter((r) => r.mount.alternateSet === null),
    alternateSets: p.rig.alternateSets
      .map((alternateSet) => ({ alternateSet, mine: mine.filter((r) => r.mount.alternateSet === alternateSet.id) }))
      .filter((s) => s.mine.length > 0),
    count: mine.length,
  };
});
/** Parts that could be tried: those on no bone. */
const loose = computed(() =>
  session.project!.parts.filter(
    (x) => (session.project!.rig.mounts.find((m) => m.part === x.id)?.bone ?? null) === null,
  ),
);
const tryIt = (part: string, instead: string): unknown => session.apply(tryPartEdit, { part, instead });
function drop(instead: string): void {
  over.value = '';
  const part = rig.draggedPart;
  rig.draggedPart = null;
  if (part) tryIt(part, instead);
}
const scaled = (r: { mount: Mount }): boolean => r.mount.s[0] !== 1;
const onSeveral = (part: string): boolean =>
  session.project!.rig.mounts.filter((m) => m.part === part && m.bone !== null).length > 1;
const value = (e: Event): string => (e.target as HTMLInputElement | HTMLSelectElement).value;
function pick(e: Event, instead: string): void {
  const part = value(e);
  (e.target as HTMLSelectElement).value = '';
  if (part) tryIt(part, instead);
}
</script>

<template>
  <section class="panel-section" aria-label="Mounted">
    <div class="panel-head">
      <h2>Mounted</h2>
      <span class="quiet figures">{{ rows.count }}</span>
    </div>
    <div
      v-for="r in rows.always"
      :key="r.mount.id"
      class="mounted"
      :class="{ over: over === r.mount.id }"
      @dragover.prevent="over = r.mount.id"
      @dragleave="over = ''"
      @drop.prevent.stop="drop(r.mount.id)"
    >
      <PartPicture :project="session.project!" :part="r.part" /><span>{{ r.part.name }}</span
      ><button type="button" class="btn" @click="session.apply(mountPartEdit, { part: r.part.id, bone: null })">
        Unmount
      </button>
      <button
        v-if="onSeveral(r.part.id)"
        type="button"
        class="btn only"
        @click="session.apply(mountPartsEdit, { pairs: [{ part: r.part.id, bone: bone.id }] })"
      >
        Only on this bone
      </button>
      <p v-if="flicker.get(r.part.id) && !scaled(r)" class="quiet only">
        {{ flicker.get(r.part.id) }}
        <button type="button" class="link" @click="session.apply(shrinkSlightlyEdit, { part: r.part.id, by: 0.98 })">
          Shrink slightly
        </button>
      </p>
      <p v-else-if="scaled(r)" class="quiet only">
        Scaled a little.
        <button type="button" class="link" @click="session.apply(shrinkSlightlyEdit, { part: r.part.id, by: 1 })">
          Full size
        </button>
      </p>
      <p class="only acts">
        <select
          v-if="loose.length > 0"
          class="pick"
          :aria-label="`Try instead of ${r.part.name}`"
          @change="pick($event, r.mount.id)"
        >
          <option value="">try instead…</option>
          <option v-for="p in loose" :key="p.id" :value="p.id">{{ p.name + sideSuffix(p.side) }}</option>
        </select>
        <button
          type="button"
          class="link"
          title="Alternates of its own, so that clips can show and hide it"
          @click="session.apply(makeAlternateSetEdit, { mount: r.mount.id })"
        >
          may come and go
        </button>
      </p>
    </div>
    <div
      v-for="s in rows.alternateSets"
      :key="s.alternateSet.id"
      class="set"
      role="radiogroup"
      :aria-label="`Alternates ${s.alternateSet.name}`"
    >
      <div class="head">
        <input
          class="text"
          :value="s.alternateSet.name"
          aria-label="Name of the alternates"
          maxlength="120"
          @keydown.stop
          @keydown.enter="($event.target as HTMLElement).blur()"
          @change="session.apply(renameAlternateSetEdit, { alternateSet: s.alternateSet.id, name: value($event) })"
        /><span class="quiet">wears one</span>
      </div>
      <div
        v-for="r in s.mine"
        :key="r.mount.id"
        class="mounted worn"
        :class="{ on: s.alternateSet.worn === r.mount.id, over: over === r.mount.id }"
        @dragover.prevent="over = r.mount.id"
        @dragleave="over = ''"
        @drop.prevent.stop="drop(r.mount.id)"
      >
        <PartPicture :project="session.project!" :part="r.part" />
        <button
          type="button"
          role="radio"
          class="wear"
          :aria-checked="s.alternateSet.worn === r.mount.id"
          @click="session.apply(wearEdit, { alternateSet: s.alternateSet.id, mount: r.mount.id })"
        >
          {{ r.part.name }}
        </button>
        <button
          type="button"
          class="link"
          :aria-label="`${r.part.name} is always there`"
          title="Out of the alternates"
          @click="session.apply(leaveAlternateSetEdit, { mount: r.mount.id })"
        >
          always
        </button>
      </div>
      <p class="acts">
        <button
          type="button"
          role="radio"
          class="link"
          :aria-checked="s.alternateSet.worn === null"
          @click="session.apply(wearEdit, { alternateSet: s.alternateSet.id, mount: null })"
        >
          none
        </button>
        <select
          v-if="loose.length > 0"
          class="pick"
          :aria-label="`Try in ${s.alternateSet.name}`"
          @change="pick($event, s.mine[0]!.mount.id)"
        >
          <option value="">try another…</option>
          <option v-for="p in loose" :key="p.id" :value="p.id">{{ p.name + sideSuffix(p.side) }}</option>
        </select>
      </p>
    </div>
    <p v-if="rows.count === 0" class="quiet">Nothing is mounted here; it steers what hangs below.</p>
  </section>
</template>

<style scoped>
.only {
  grid-column: 2 / 4;
}
.mounted {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr) auto;
  gap: 4px 8px;
  align-items: center;
  border-radius: var(--radius);
}
.over {
  box-shadow: inset 0 0 0 2px var(--honey);
}
.set {
  display: grid;
  gap: 5px;
  padding: 6px 7px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
}
.worn.on {
  background: var(--honey-soft);
}
.wear {
  text-align: left;
  min-height: 32px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.worn.on .wear {
  font-weight: 600;
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.text {
  min-width: 0;
  height: 26px;
  padding: 0 6px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 12px;
}
.pick {
  min-width: 0;
  height: 24px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
}
.link {
  color: var(--resin);
  text-decoration: underline;
  font-size: 12px;
}
.link[aria-checked='true'] {
  font-weight: 600;
  text-decoration: none;
}
</style>
