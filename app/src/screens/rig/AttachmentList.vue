<script setup lang="ts">
import { IconPlus, IconX } from '@tabler/icons-vue';
import type { Bone } from '@sphalerite/core/model';
import { addAttachmentEdit, changeAttachmentEdit, deleteAttachmentEdit, setSideEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import VectorField from '../../components/VectorField.vue';
import { useSession } from '../../stores/session';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';
import TextField from '../../components/TextField.vue';
import IconButton from '../../components/IconButton.vue';
import SideField from '../../components/SideField.vue';

/** Named places on the bone, where effects and wearables meet it; empty nodes in an export. */
const props = defineProps<{ bone: Bone }>();
const session = useSession();
const mine = computed(() => session.shown!.rig.attachments.filter((t) => t.bone === props.bone.id));
</script>

<template>
  <section class="panel-section" aria-label="Attachment points">
    <div class="panel-head">
      <h2>Attachment points</h2>
      <icon-button
        :icon="IconPlus"
        label="New attachment point"
        tip="A place for a flame, a grip, a seat"
        @click="session.apply(addAttachmentEdit, { bone: bone.id, name: 'Point' })"
      />
    </div>
    <div v-for="t in mine" :key="t.id" class="point">
      <div class="head">
        <text-field
          :model-value="t.name"
          label="Name of the attachment point"
          @change="(name) => session.apply(changeAttachmentEdit, { attachment: t.id, name })"
        /><side-field
          :label="`Side of ${t.name}`"
          :model-value="t.side"
          @change="(side) => session.apply(setSideEdit, { of: 'attachments', ids: [t.id], side })"
        /><icon-button
          :icon="IconX"
          class="small"
          :label="`Delete attachment point ${t.name}`"
          @click="session.apply(deleteAttachmentEdit, { attachment: t.id })"
        />
      </div>
      <vector-field
        name="Point"
        :model-value="t.t"
        :step="0.5"
        @change="(i, v) => session.apply(changeAttachmentEdit, { attachment: t.id, t: withComponent(t.t, i, v) })"
      />
      <vector-field
        name="Point turn"
        :model-value="toDegrees(t.q)"
        :step="15"
        unit="°"
        @change="
          (i, v) =>
            session.apply(changeAttachmentEdit, {
              attachment: t.id,
              q: fromDegrees(withComponent(toDegrees(t.q), i, v)),
            })
        "
      />
    </div>
    <p v-if="mine.length === 0" class="quiet">None. They go out as empty nodes.</p>
  </section>
</template>

<style scoped>
.point {
  display: grid;
  gap: 5px;
  padding: 6px 7px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 20px;
  gap: 4px;
  align-items: center;
}
p {
  font-size: 12px;
}
</style>
