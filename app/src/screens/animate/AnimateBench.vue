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

// Its chart is fetched when it is first looked at.
const GroundView = defineAsyncComponent(() => import('./GroundView.vue'));
const session = useSession();
const anim = useAnimate();
const SPEEDS = [
  { v: 0.25, t: '¼' },
  { v: 0.5, t: '½' },
  { v: 1, t: '1×' },
];
const SHEETS = [
  { v: 'keys', t: 'Keys' },
  { v: 'curves', t: 'Curves' },
  { v: 'ground', t: 'Ground' },
] as const;
</script>

<template>
  <div class="animate-bench">
    <header class="transport">
      <button
        type="button"
        class="bare"
        aria-label="To the first frame"
        title="To the first frame"
        @click="anim.scrub(0)"
      >
        <IconPlayerSkipBack aria-hidden="true" />
      </button>
      <button
        type="button"
        class="btn dark play"
        :aria-label="anim.playing ? 'Stop' : 'Play'"
        title="Play or stop · P"
        :disabled="!anim.clip"
        @click="anim.play()"
      >
        <IconPlayerPause v-if="anim.playing" aria-hidden="true" /><IconPlayerPlay v-else aria-hidden="true" />
      </button>
      <button
        type="button"
        class="bare"
        :class="{ looped: anim.clip?.loop }"
        aria-label="Loop"
        title="Loop"
        :aria-pressed="anim.clip?.loop"
        :disabled="!anim.clip"
        @click="session.apply(setClipEdit, { clip: anim.clip!.id, loop: !anim.clip!.loop })"
      >
        <IconRotateClockwise aria-hidden="true" />
      </button>
      <CommandButton id="anim.pingPong" bare />
      <div class="segments figures">
        <button
          v-for="s in SPEEDS"
          :key="s.v"
          type="button"
          :aria-pressed="anim.speed === s.v"
          :aria-label="`Speed ${s.v}`"
          @click="anim.speed = s.v"
        >
          {{ s.t }}
        </button>
      </div>
      <div class="segments" role="group" aria-label="What the bench shows">
        <button
          v-for="s in SHEETS"
          :key="s.v"
          type="button"
          :aria-pressed="anim.sheet === s.v"
          @click="anim.sheet = s.v"
        >
          {{ s.t }}
        </button>
      </div>
      <CommandButton id="anim.auto" text="Auto-key" />
      <template v-if="anim.sheet === 'keys'">
        <input
          v-model="anim.filter"
          class="filter"
          type="search"
          placeholder="lanes…"
          aria-label="Show lanes whose name holds"
          @keydown.stop
        />
        <div class="segments sides" role="group" aria-label="Lanes of a side">
          <button
            v-for="s in ['all', ...SIDES] as const"
            :key="s"
            type="button"
            :aria-pressed="anim.side === s"
            @click="anim.side = s"
          >
            {{ s }}
          </button>
        </div>
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
.play {
  width: 36px;
  padding: 0;
  color: #f0b648;
}
.looped {
  color: var(--resin);
  background: var(--honey-soft);
}
.gap {
  flex: 1;
}
.filter {
  width: 84px;
  height: 26px;
  padding: 0 6px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
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
