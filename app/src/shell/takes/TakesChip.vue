<script setup lang="ts">
import { IconPlayerPause, IconX } from '@tabler/icons-vue';
import { computed, onMounted } from 'vue';
import IconButton from '../../components/IconButton.vue';
import { useSession } from '../../stores/session';
import { usePictures } from './pictures';
import { progressOf, useTakes } from './takes';

/** Pictures under way, at the top of every screen. */
const takes = useTakes();
const pictures = usePictures();
const session = useSession();
/** A picture goes on while one is elsewhere; where it is looked at it tells of itself. */
const traced = computed(() => (session.where === 'Light' ? null : pictures.making));
onMounted(takes.resume);
onMounted(pictures.resume);
const first = computed(() => takes.making.at(-1));
const left = computed(() => {
  const s = first.value?.left ?? 0;
  return s <= 0 ? '' : s < 90 ? `, ${Math.ceil(s)} s to go` : `, ${Math.ceil(s / 60)} min to go`;
});
</script>

<template>
  <span
    v-if="traced"
    class="take"
    role="status"
    data-testid="traced"
    :data-tip="`${traced.shot.name} is being traced, ${Math.ceil(pictures.left)} s to go`"
  >
    <i :style="{ width: `${100 * pictures.progress}%` }" aria-hidden="true" />
    <span class="figures">{{ Math.round(100 * pictures.progress) }} %</span>
    <icon-button
      :icon="IconPlayerPause"
      :label="`Pause the picture of ${traced.shot.name}`"
      @click="pictures.cancel()"
    />
  </span>
  <span v-if="first" class="take" role="status" data-testid="take" :data-tip="`${first.title} is being made${left}`">
    <i :style="{ width: `${(100 * first.made) / Math.max(1, first.count)}%` }" aria-hidden="true" />
    <span class="figures">{{ progressOf(first) }}</span>
    <icon-button :icon="IconX" :label="`Stop making ${first.title}`" @click="takes.stop(first.id)" />
  </span>
</template>

<style scoped>
.take {
  position: relative;
  display: flex;
  align-items: center;
  gap: 4px;
  padding-left: 10px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  overflow: hidden;
  white-space: nowrap;
}
.take > span,
.take > :last-child {
  position: relative;
}
i {
  position: absolute;
  inset: auto auto 0 0;
  height: 3px;
  background: var(--honey);
}
</style>
