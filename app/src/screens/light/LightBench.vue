<script setup lang="ts">
import { ElProgress } from 'element-plus';
import 'element-plus/theme-chalk/el-progress.css';
import CommandButton from '../../components/CommandButton.vue';
import { useLight } from './light-state';
import ActionButton from '../../components/ActionButton.vue';
import EmptyState from '../../components/EmptyState.vue';

const light = useLight();
</script>

<template>
  <div class="light-bench">
    <section class="go" aria-label="Tracing">
      <div class="row">
        <CommandButton v-if="!light.tracing && !light.calming" id="light.trace" label look="primary" /><CommandButton
          v-else
          id="light.stop"
          label
        /><CommandButton id="light.calm" /><CommandButton id="light.png" label />
      </div>
      <el-progress
        :percentage="Math.round(light.progress * 100)"
        :stroke-width="6"
        :show-text="false"
        color="var(--honey)"
        aria-label="Progress of the picture"
      />
      <p class="figures quiet" data-testid="trace-state">
        {{
          light.tracing
            ? `${Math.round(light.progress * 100)} % · ${Math.ceil(light.left)} s left`
            : light.current?.done
              ? light.calming
                ? 'taking the noise out…'
                : `done in ${light.current.seconds.toFixed(1)} s`
              : light.current
                ? 'stopped; what is there can be saved'
                : 'ready'
        }}
      </p>
    </section>
    <section class="strip" aria-label="Pictures made">
      <action-button
        v-for="p in light.pictures"
        :key="p.id"
        class="thumb"
        :on="light.current?.id === p.id"
        :tip="`${p.shot.name}, ${p.shot.size.join('×')}, ${p.shot.samples} samples, ${p.seconds.toFixed(1)} s`"
        @click="light.current = p"
      >
        <img :src="p.url" :alt="`Picture of ${p.shot.name}`" /><small class="figures">{{ p.shot.name }}</small>
      </action-button>
      <empty-state
        v-if="light.pictures.length === 0"
        text="Pictures you trace line up here with the settings they were made from."
      />
    </section>
  </div>
</template>

<style scoped>
.light-bench {
  display: grid;
  grid-template-columns: 404px 1fr;
  height: 100%;
}
section {
  padding: 12px 14px;
  min-width: 0;
}
.go {
  display: grid;
  gap: 10px;
  align-content: start;
  border-right: 1px solid var(--line);
}
.strip {
  display: flex;
  gap: 10px;
  overflow: auto;
  align-items: start;
}
.thumb.el-button {
  flex: none;
  padding: 4px;
}
.thumb.el-button :deep(> span) {
  display: grid;
  gap: 3px;
}
.thumb img {
  height: 78px;
  min-width: 60px;
  object-fit: cover;
  border-radius: 3px;
  display: block;
}
.thumb small {
  max-width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  text-align: left;
}
</style>
