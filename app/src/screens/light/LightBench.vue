<script setup lang="ts">
import CommandButton from '../../components/CommandButton.vue';
import { useLight } from './light-state';

const light = useLight();
</script>

<template>
  <div class="light-bench">
    <section class="go" aria-label="Tracing">
      <div class="row">
        <CommandButton v-if="!light.tracing" id="light.trace" label class="lead" /><CommandButton
          v-else
          id="light.stop"
          label
        /><CommandButton id="light.png" label />
      </div>
      <div
        class="progress"
        role="progressbar"
        :aria-valuenow="Math.round(light.progress * 100)"
        aria-valuemin="0"
        aria-valuemax="100"
        aria-label="Progress of the picture"
      >
        <i :style="{ width: `${light.progress * 100}%` }" />
      </div>
      <p class="figures quiet" data-testid="trace-state">
        {{
          light.tracing
            ? `${Math.round(light.progress * 100)} % · ${Math.ceil(light.left)} s left`
            : light.current?.done
              ? `done in ${light.current.seconds.toFixed(1)} s`
              : light.current
                ? 'stopped; what is there can be saved'
                : 'ready'
        }}
      </p>
    </section>
    <section class="strip" aria-label="Pictures made">
      <button
        v-for="p in light.pictures"
        :key="p.id"
        type="button"
        class="thumb"
        :class="{ on: light.current?.id === p.id }"
        :title="`${p.shot.name}, ${p.shot.size.join('×')}, ${p.shot.samples} samples, ${p.seconds.toFixed(1)} s`"
        @click="light.current = p"
      >
        <img :src="p.url" :alt="`Picture of ${p.shot.name}`" /><small class="figures">{{ p.shot.name }}</small>
      </button>
      <p v-if="light.pictures.length === 0" class="quiet">
        Pictures you trace line up here with the settings they were made from.
      </p>
    </section>
  </div>
</template>

<style scoped>
.light-bench {
  display: grid;
  grid-template-columns: 366px 1fr;
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
.lead {
  background: var(--resin);
  color: var(--resin-ink);
  border-color: var(--resin);
}
.progress {
  height: 6px;
  border-radius: 3px;
  background: var(--line);
  overflow: hidden;
}
.progress i {
  display: block;
  height: 100%;
  background: var(--honey);
}
.strip {
  display: flex;
  gap: 10px;
  overflow: auto;
  align-items: start;
}
.thumb {
  flex: none;
  display: grid;
  gap: 3px;
  padding: 4px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
}
.thumb.on {
  border-color: var(--honey);
  outline: 1px solid var(--honey);
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
