<script setup lang="ts">
import { EASINGS, type Easing } from '@sphalerite/core/model';
import { easeKeysEdit, setClipEdit } from '@sphalerite/core/project';
import { type KeyRef, framesIn, nearestFrame } from '@sphalerite/core/motion';
import type { Vec3 } from '@sphalerite/core/math';
import { computed } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import NameField from '../../components/NameField.vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';
import { useAnimate } from './animate-state';
import { useKeying } from './keying';

const session = useSession();
const anim = useAnimate();
const keying = useKeying();
const AXES = ['x', 'y', 'z'] as const;
const clip = computed(() => session.clip);
const bone = computed(() => session.bone);
const local = computed(() => (bone.value ? (anim.pose.get(bone.value.id) ?? bone.value.rest) : null));
const degrees = computed<Vec3>(() => (local.value ? toDegrees(local.value.q) : [0, 0, 0]));
/** Keys meant by the easing buttons: the chosen ones, else those of the bone at this frame. */
const here = computed<KeyRef[]>(() => {
  if (anim.chosen.length > 0) return anim.chosen;
  const c = clip.value, b = bone.value;
  const lane = c?.lanes.find((l) => l.bone === b?.id);
  if (!c || !b || !lane) return [];
  const time = nearestFrame(c, anim.time);
  return (['move', 'turn', 'scale'] as const).filter((ch) => lane[ch].some((k) => k.time === time)).map((channel) => ({ bone: b.id, channel, time }));
});
const ease = computed<Easing | null>(() => {
  const r = here.value[0];
  const lane = r && clip.value?.lanes.find((l) => l.bone === r.bone);
  return lane ? (lane[r.channel].find((k) => k.time === r.time)?.ease ?? null) : null;
});
const CURVES: Record<Easing, string> = { step: 'M8 52 H152 V12', even: 'M8 52 L152 12', ease: 'M8 52 C70 52 90 12 152 12', curve: 'M8 52 C44 52 44 12 152 12' };
const setClip = (more: Omit<Parameters<typeof setClipEdit.run>[1], 'clip'>): unknown => session.apply(setClipEdit, { clip: clip.value!.id, ...more });
</script>

<template>
  <div v-if="clip">
    <section class="panel-section">
      <div class="panel-head"><NameField :name="clip.name" label="Name of the clip" :disabled="!session.writable" @rename="(name) => setClip({ name })" /><span class="quiet">clip</span></div>
      <div class="row"><NumberField label="f" name="Frames" :model-value="framesIn(clip)" :min="1" @change="(v) => setClip({ frames: Math.round(v) })" /><NumberField label="fps" name="Frames per second" :model-value="clip.fps" :min="1" :max="240" @change="(v) => setClip({ fps: v })" /></div>
      <label class="row"><input type="checkbox" :checked="clip.loop" @change="setClip({ loop: ($event.target as HTMLInputElement).checked })" />Loops</label>
    </section>
    <section v-if="bone" class="panel-section">
      <div class="panel-head"><h2>{{ bone.name }}</h2><span v-if="bone.side !== 'centre'" class="tag">{{ bone.side }}</span><span class="quiet">bone</span></div>
      <div class="row"><NumberField v-for="(a, i) in AXES" :key="a" :axis="a" :label="a.toUpperCase()" :name="`Turn ${a.toUpperCase()}`" :model-value="degrees[i]!" :step="5" unit="°" @change="(v) => keying.turn(bone!.id, fromDegrees(withComponent(degrees, i, v)), true)" /></div>
      <div class="row"><NumberField v-for="(a, i) in AXES" :key="a" :axis="a" :label="a.toUpperCase()" :name="`Place ${a.toUpperCase()}`" :model-value="local!.t[i]!" :step="0.5" @change="(v) => keying.move(bone!.id, withComponent(local!.t, i, v), true)" /></div>
      <CommandButton id="anim.key" label />
    </section>
    <p v-else class="none quiet">Click a joint to turn it at this frame.</p>
    <section v-if="here.length > 0" class="panel-section">
      <div class="panel-head"><h2>{{ here.length === 1 ? 'Key' : `${here.length} keys` }}</h2><span class="quiet">to the next</span></div>
      <div class="segments wide"><button v-for="e in EASINGS" :key="e" type="button" :aria-pressed="ease === e" @click="session.apply(easeKeysEdit, { clip: clip!.id, keys: here, ease: e })">{{ e }}</button></div>
      <svg v-if="ease" viewBox="0 0 160 64" class="curve" aria-hidden="true"><path :d="CURVES[ease]" /><circle cx="8" cy="52" r="4" /><circle cx="152" cy="12" r="4" /></svg>
    </section>
  </div>
  <p v-else class="none quiet">Make a clip on the left to begin.</p>
</template>

<style scoped>
.none { padding: 12px; }
.wide { display: flex; }
.wide button { flex: 1; }
.curve { width: 100%; background: var(--ground); border-radius: var(--radius); }
.curve path { fill: none; stroke: var(--resin); stroke-width: 2.5; }
.curve circle { fill: var(--honey); stroke: var(--resin); stroke-width: 1.5; }
</style>
