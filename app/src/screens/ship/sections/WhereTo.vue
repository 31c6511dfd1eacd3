<script setup lang="ts">
import { IconFolderOff, IconFolderOpen } from '@tabler/icons-vue';
import { partsInUse, sceneByItself, sideSuffix, placementName } from '@sphalerite/core/model';
import { computed } from 'vue';
import ActionButton from '../../../components/ActionButton.vue';
import CommandButton from '../../../components/CommandButton.vue';
import SelectField from '../../../components/SelectField.vue';
import { group } from '../../../components/choices';
import { useSession } from '../../../stores/session';
import { useLinkedFolder } from '../linked-folder';
import { useShip } from '../ship-state';
import { useShipSubject } from '../../../stores/ship-subject';

/** What is shipped, and where to. */
const session = useSession();
const ship = useShip();
const folder = useLinkedFolder();
const choice = useShipSubject();
const WHOLE = 'whole';
/** What was sent here from Stage, and what is chosen there. */
const placed = computed(() => {
  const wanted = new Set([choice.only?.of === 'group' ? choice.only.id : '', session.placement?.id ?? '']);
  const all = session.project?.scenes.flatMap((s) => s.placements.flat()) ?? [];
  return all.filter((p) => wanted.has(p.id));
});
const only = computed({
  get: () => (choice.only ? `${choice.only.of} ${choice.only.id}` : WHOLE),
  set: (v) => {
    const [of, id] = v.split(' ');
    choice.only = v === WHOLE ? null : { of: of as 'part' | 'scene' | 'group', id: id! };
  },
});
const subjects = computed(() => [
  { value: WHOLE, text: session.project && sceneByItself(session.project) ? 'the scene' : 'everything on the rig' },
  ...group(
    'a scene',
    (session.project?.scenes ?? []).map((s) => ({ value: `scene ${s.id}`, text: s.name })),
  ),
  ...group(
    'what is chosen on Stage',
    placed.value.map((p) => ({ value: `group ${p.id}`, text: placementName(session.project!, p) })),
  ),
  ...group(
    'one part',
    partsInUse(session.project?.parts ?? []).map((o) => ({ value: `part ${o.id}`, text: o.name + sideSuffix(o.side) })),
  ),
]);
const when = computed(() => {
  if (!folder.at) return 'nothing from here in it yet';
  const days = Math.floor((Date.now() - folder.at) / 86_400_000);
  const n = ship.made?.delivered.files.length ?? 0;
  return `over ${n} ${n === 1 ? 'file' : 'files'} of ${days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`}`;
});
</script>

<template>
  <section class="panel-section">
    <CommandButton id="ship.save" label look="primary" />
    <p v-if="folder.handle" class="quiet into">
      into <b>{{ folder.handle.name }}</b>, {{ when }}
      <action-button look="link" tip="Ship to the browser’s downloads again" @click="folder.unlink()"
        ><IconFolderOff aria-hidden="true" />unlink</action-button
      >
    </p>
    <p v-else-if="folder.possible" class="quiet into">
      to the browser’s downloads, or
      <action-button look="link" tip="Files are written there, over those of last time" @click="folder.link()"
        ><IconFolderOpen aria-hidden="true" />link a folder</action-button
      >
    </p>
    <SelectField v-model="only" label="What is shipped" :choices="subjects" />
  </section>
</template>

<style scoped>
.into {
  margin: 6px 0 8px;
}
.into :deep(svg) {
  width: 15px;
  height: 15px;
  margin-right: 3px;
}
</style>
