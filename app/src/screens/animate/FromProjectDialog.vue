<script setup lang="ts">
import type { Project } from '@sphalerite/core/model';
import { retarget } from '@sphalerite/core/motion';
import { retargetClipEdit } from '@sphalerite/core/project';
import { computed, ref, shallowRef } from 'vue';
import { useSession } from '../../stores/session';
import ProjectSources from '../../shell/files/ProjectSources.vue';
import ActionButton from '../../components/ActionButton.vue';
import DialogBox from '../../components/DialogBox.vue';
import { counted, say } from '../../words';

/** Brings a clip of another figure onto this rig, by the names of its bones. */
const emit = defineEmits<{ close: [] }>();
const session = useSession();
const open = ref(true);
const source = shallowRef<Project | null>(null);
/** Each clip with the bones that it finds here, and those it misses. */
const clips = computed(() =>
  (source.value?.clips ?? []).map((clip) => {
    const { lanes, missing } = retarget(clip, source.value!, session.project!);
    return { clip, found: lanes.length, missing };
  }),
);
function bring(clip: string): void {
  if (session.apply(retargetClipEdit, { source: source.value!, clip }, (p) => ({ clip: p.clips.at(-1)!.id })))
    open.value = false;
}
</script>

<template>
  <dialog-box v-model="open" title="A clip of another figure" width="560px" @closed="emit('close')">
    <div class="from">
      <ProjectSources @take="(p) => (source = p)" />
      <ul v-if="source">
        <li v-for="c in clips" :key="c.clip.id">
          <b>{{ c.clip.name }}</b><span class="quiet"
            >{{ counted(c.found, 'bones')
            }}{{
              c.missing.length > 0
                ? say(c.missing.length > 3 ? 'clip.withoutMore' : 'clip.without', {
                    list: c.missing.slice(0, 3).join(', '),
                    n: c.missing.length - 3,
                  })
                : ''
            }}</span
          ><action-button :disabled="c.found === 0" :aria-label="`Bring in ${c.clip.name}`" @click="bring(c.clip.id)">
            Bring in
          </action-button>
        </li>
      </ul>
      <p v-if="source && clips.length === 0" class="quiet">“{{ source.name }}” has no clips.</p>
      <p class="quiet">Turns are the same in the world; shifts are scaled to this figure’s limbs.</p>
    </div>
  </dialog-box>
</template>

<style scoped>
.from {
  display: grid;
  gap: 12px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
li {
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
}
</style>
