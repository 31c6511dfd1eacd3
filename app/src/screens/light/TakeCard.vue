<script setup lang="ts">
import { IconPlayerPause, IconPlayerPlay, IconTrash } from '@tabler/icons-vue';
import { ElProgress } from 'element-plus';
import 'element-plus/theme-chalk/el-progress.css';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import FilmView from '../../shell/takes/FilmView.vue';
import { type Take, progressOf, useTakes } from '../../shell/takes/takes';

/** What a shot became, or is becoming. */
const props = defineProps<{ take: Take }>();
const takes = useTakes();
const kind = computed(() => (props.take.files[0]?.name ?? '').split('.').pop()!);
</script>

<template>
  <div class="take" data-testid="take-card">
    <video v-if="kind === 'webm' || kind === 'mp4'" :src="take.url" autoplay loop muted playsinline />
    <img v-else-if="take.url && kind !== 'zip'" :src="take.url" :alt="take.title" />
    <span
      v-else-if="take.shown"
      class="growing"
      :style="{ aspectRatio: take.shown.film.width / take.shown.film.height }"
      ><FilmView v-bind="take.shown" transparent :growing="take.state === 'making'" :zebra="false" :label="take.title"
    /></span>
    <el-progress
      v-else
      type="circle"
      :width="64"
      :stroke-width="5"
      :percentage="Math.round((100 * take.made) / Math.max(1, take.count))"
      color="var(--honey)"
    />
    <small class="figures">{{ take.title }} · {{ take.state === 'done' ? kind : progressOf(take) }}</small>
    <span class="row">
      <action-button v-if="take.state === 'done'" look="bare" @click="takes.save(take)">save again</action-button
      ><icon-button
        v-else-if="take.state === 'making'"
        :icon="IconPlayerPause"
        :label="`Pause ${take.title}`"
        @click="takes.stop(take.id)"
      /><icon-button v-else :icon="IconPlayerPlay" :label="`Go on with ${take.title}`" @click="takes.goOn(take.id)" />
      <icon-button :icon="IconTrash" class="later" :label="`Throw away ${take.title}`" @click="takes.drop(take.id)" />
    </span>
  </div>
</template>

<style scoped>
.take {
  display: grid;
  flex: none;
  justify-items: start;
  gap: 3px;
}
img,
video,
.growing {
  height: 70px;
  max-width: 200px;
  object-fit: contain;
  border-radius: 3px;
  image-rendering: pixelated;
}
.growing {
  display: block;
}
small {
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
