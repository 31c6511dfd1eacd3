<script setup lang="ts">
import { IconX } from '@tabler/icons-vue';
import { FIRST_CAMERA, type Shot, makeShot } from '@sphalerite/core/model';
import { computed, onBeforeUnmount, watch } from 'vue';
import IconButton from '../components/IconButton.vue';
import { useSession } from '../stores/session';
import { useSettings } from '../stores/settings';
import { useView } from '../stores/view';
import FilmView from './takes/FilmView.vue';
import { useInset } from './takes/draft';

/** A small traced picture of what the view shows, in the light of the shot in hand: a lamp is judged while it is placed. */
const session = useSession();
const view = useView();
const inset = useInset();
const { settings } = useSettings();
const SIZE = [264, 170] as const;
const light = computed(() => session.shot ?? session.project?.shots[0] ?? makeShot('inset', 'Plain light'));
const shot = computed((): Shot => {
  const { output } = light.value;
  return {
    ...light.value,
    scene: view.screen === 'stage' ? (session.scene?.id ?? null) : null,
    clip: null,
    time: 0,
    output: { ...output, size: SIZE, transparent: false },
  };
});
watch(
  () => [shot.value, session.project, view.turned, view.viewport] as const,
  () => {
    const c = view.viewport?.camera;
    const camera = c && {
      ...FIRST_CAMERA,
      ...{ kind: c.orthographic ? ('orthographic' as const) : ('perspective' as const), fov: c.fov },
      ...{ eye: c.eye, target: c.target, height: c.span },
    };
    inset.soon(session.project ? shot.value : null, camera ?? null);
  },
  { immediate: true },
);
onBeforeUnmount(inset.stop);
</script>

<template>
  <aside class="inset" aria-label="Traced inset" data-testid="inset">
    <FilmView
      v-if="inset.light"
      :film="inset.light"
      :grade="shot.grade"
      :transparent="false"
      :grown="inset.grown"
      :growing="false"
      :zebra="false"
      label="Traced picture of the view"
    />
    <footer>
      <span>{{ light.name }}</span><icon-button
        :icon="IconX"
        label="Close the traced inset"
        @click="settings.inset = false"
      />
    </footer>
  </aside>
</template>

<style scoped>
.inset {
  position: absolute;
  z-index: 2;
  right: 14px;
  top: 58px;
  width: 264px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--panel);
  box-shadow: var(--shadow);
  overflow: hidden;
}
.inset :deep(.film) {
  height: 170px;
}
.inset:not(:has(.film))::before {
  content: '';
  display: block;
  height: 170px;
}
footer {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 0 2px 0 10px;
  font-size: 12px;
  color: var(--quiet);
}
</style>
