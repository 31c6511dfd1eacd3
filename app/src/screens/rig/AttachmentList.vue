<script setup lang="ts">
import { IconPlus, IconX } from '@tabler/icons-vue';
import type { Bone } from '@sphalerite/core/model';
import { addAttachmentEdit, changeAttachmentEdit, deleteAttachmentEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';

/** Named places on the bone, where effects and wearables meet it; empty nodes in an export. */
const props = defineProps<{ bone: Bone }>();
const session = useSession();
const AXES = ['x', 'y', 'z'] as const;
const mine = computed(() => session.shown!.rig.attachments.filter((t) => t.bone === props.bone.id));
const value = (e: Event): string => (e.target as HTMLInputElement).value;
</script>

<template>
  <section class="panel-section" aria-label="Attachment points">
    <div class="panel-head">
      <h2>Attachment points</h2>
      <button
        type="button"
        class="bare"
        aria-label="New attachment point"
        title="A place for a flame, a grip, a seat"
        @click="session.apply(addAttachmentEdit, { bone: bone.id, name: 'Point' })"
      >
        <IconPlus aria-hidden="true" />
      </button>
    </div>
    <div v-for="t in mine" :key="t.id" class="point">
      <div class="head">
        <input
          class="text"
          :value="t.name"
          aria-label="Name of the attachment point"
          maxlength="120"
          @keydown.stop
          @keydown.enter="($event.target as HTMLElement).blur()"
          @change="session.apply(changeAttachmentEdit, { attachment: t.id, name: value($event) })"
        /><button
          type="button"
          class="bare small"
          :aria-label="`Delete attachment point ${t.name}`"
          @click="session.apply(deleteAttachmentEdit, { attachment: t.id })"
        >
          <IconX aria-hidden="true" />
        </button>
      </div>
      <div class="row">
        <NumberField
          v-for="(a, i) in AXES"
          :key="a"
          :axis="a"
          :label="a.toUpperCase()"
          :name="`Point ${a.toUpperCase()}`"
          :model-value="t.t[i]!"
          :step="0.5"
          @change="(v) => session.apply(changeAttachmentEdit, { attachment: t.id, t: withComponent(t.t, i, v) })"
        />
      </div>
      <div class="row">
        <NumberField
          v-for="(a, i) in AXES"
          :key="a"
          :axis="a"
          :label="a.toUpperCase()"
          :name="`Point turn ${a.toUpperCase()}`"
          :model-value="toDegrees(t.q)[i]!"
          :step="15"
          unit="°"
          @change="
            (v) =>
              session.apply(changeAttachmentEdit, {
                attachment: t.id,
                q: fromDegrees(withComponent(toDegrees(t.q), i, v)),
              })
          "
        />
      </div>
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
  grid-template-columns: minmax(0, 1fr) 20px;
  gap: 4px;
  align-items: center;
}
.text {
  min-width: 0;
  height: 26px;
  padding: 0 6px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--panel);
}
.small {
  width: 20px;
  height: 20px;
}
.small svg {
  width: 14px;
  height: 14px;
}
p {
  font-size: 12px;
}
</style>
