<script setup lang="ts">
import { IconPlayerPause, IconPlayerPlay, IconPlayerSkipBack, IconRotateClockwise } from '@tabler/icons-vue';
import { SIDES, TICKS } from '@sphalerite/core/model';
import { setClipEdit } from '@sphalerite/core/project';
import { defineAsyncComponent } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import { useSession } from '../../stores/session';
import CurveView from './CurveView.vue';
import KeyLanes from './KeyLanes.vue';
import { useAnimate } from './animate-state';
import IconButton from '../../components/IconButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import { choices } from '../../components/choices';
import TextField from '../../components/TextField.vue';

// Its chart is fetched when it is first looked at.
const GroundView = defineAsyncComponent(() => import('./GroundView.vue'));
const session = useSession();
const anim = useAnimate();
const SPEEDS = [
  { value: 0.25, text: '¼', name: 'Speed 0.25' },
  { value: 0.5, text: '½', name: 'Speed 0.5' },
  { value: 1, text: '1×', name: 'Speed 1' },
];
const SHEETS = [
  { value: 'keys', text: 'Keys' },
  { value: 'curves', text: 'Curves' },
  { value: 'ground', text: 'Ground' },
] as const;
const sides = choices(['all', ...SIDES] as const);
</script>

<template>
  <div class="animate-bench">
    <header class="transport">
      <icon-button :icon="IconPlayerSkipBack" label="To the first frame" @click="anim.scrub(0)" />
      <icon-button
        :icon="anim.playing ? IconPlayerPause : IconPlayerPlay"
        look="dark"
        class="play"
        :label="anim.playing ? 'Stop' : 'Play'"
        tip="Play or stop"
        keys="P"
        :disabled="!anim.clip"
        @click="anim.play()"
      />
      <icon-button
        :icon="IconRotateClockwise"
        label="Loop"
        :on="anim.clip?.loop"
        :disabled="!anim.clip"
        @click="session.apply(setClipEdit, { clip: anim.clip!.id, loop: !anim.clip!.loop })"
      />
      <CommandButton id="anim.pingPong" bare />
      <choice-field label="Speed of playing" class="figures" v-model="anim.speed" :choices="SPEEDS" />
      <choice-field label="What the bench shows" v-model="anim.sheet" :choices="SHEETS" />
      <CommandButton id="anim.auto" text="Auto-key" />
      <template v-if="anim.sheet === 'keys'">
        <text-field v-model="anim.filter" class="filter" label="Show lanes whose name holds" placeholder="lanes…" />
        <choice-field label="Lanes of a side" class="sides" v-model="anim.side" :choices="sides" />
      </template>
      <span class="gap" />
      <span v-if="anim.clip" class="figures quiet" data-testid="frame"
        >frame {{ Math.round((anim.time * anim.clip.fps) / TICKS) }} of {{ anim.frames }} ·
        {{ (anim.time / TICKS).toFixed(2) }} s</span
      >
    </header>
    <KeyLanes v-if="anim.sheet === 'keys'" /><CurveView v-else-if="anim.sheet === 'curves'" /><GroundView v-else />
  </div>
</template>

<style scoped>
.animate-bench {
  display: grid;
  grid-template-rows: 44px minmax(0, 1fr);
  height: 100%;
}
.transport {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 14px;
  border-bottom: 1px solid var(--line);
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
}
.play.el-button {
  --el-button-text-color: #f0b648;
  --el-button-hover-text-color: #f0b648;
  width: 36px;
}
.gap {
  flex: 1;
}
.filter {
  width: 92px;
}
.sides {
  font-size: 12px;
}
@media (max-width: 1180px) {
  .sides {
    display: none;
  }
}
</style>
