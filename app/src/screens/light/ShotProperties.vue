<script setup lang="ts">
import { type Light, type Shot, find, TICKS } from '@sphalerite/core/model';
import { editShotEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import NameField from '../../components/NameField.vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';
import CheckField from '../../components/CheckField.vue';
import SelectField from '../../components/SelectField.vue';
import { records } from '../../components/choices';
import ColourField from '../../components/ColourField.vue';
import EmptyState from '../../components/EmptyState.vue';
import FormRow from '../../components/FormRow.vue';

const session = useSession();
const shot = computed(() => session.shot);
const change = (more: Partial<Omit<Shot, 'id'>>): unknown =>
  session.apply(editShotEdit, { shot: shot.value!.id, change: more });
function light<K extends keyof Light>(part: K, more: Partial<Light[K]>): void {
  const l = shot.value!.light;
  const next = typeof l[part] === 'object' ? { ...(l[part] as object), ...(more as object) } : more;
  change({ light: { ...l, [part]: next } as Light });
}
const pose = computed(() => {
  const c = find(session.project?.clips ?? [], shot.value?.clip ?? null);
  return c ? `${c.name}, frame ${Math.round((shot.value!.time * c.fps) / TICKS)}` : 'rest pose';
});
const around = (e: PointerEvent): void => {
  const el = e.currentTarget as HTMLElement;
  if (e.type === 'pointerdown') el.setPointerCapture(e.pointerId);
  else if (!(e.buttons & 1)) return;
  const r = el.getBoundingClientRect();
  const dx = e.clientX - r.left - r.width / 2,
    dy = e.clientY - r.top - r.height / 2;
  const far = Math.min(1, Math.hypot(dx, dy) / (r.width / 2));
  light('sun', {
    azimuth: Math.round((Math.atan2(dx, dy) * 180) / Math.PI),
    elevation: Math.round(Math.acos(far) * (180 / Math.PI)),
  });
};
/** Where the sun stands on the dial: the middle is overhead, the rim the horizon, below is in front. */
const dot = computed(() => {
  const { azimuth, elevation } = shot.value!.light.sun;
  const r = Math.cos((Math.max(0, elevation) * Math.PI) / 180) * 42,
    a = (azimuth * Math.PI) / 180;
  return { cx: 48 + Math.sin(a) * r, cy: 48 + Math.cos(a) * r };
});
</script>

<template>
  <div v-if="shot">
    <section class="panel-section">
      <div class="panel-head">
        <NameField
          :name="shot.name"
          label="Name of the shot"
          :disabled="!session.writable"
          @rename="(name) => change({ name })"
        /><span class="quiet">shot</span>
      </div>
      <form-row v-if="session.project!.scenes.length > 0" label="Shows"
        ><SelectField
          label="What the shot shows"
          :model-value="find(session.project!.scenes, shot.scene)?.id ?? ''"
          :choices="[{ value: '', text: 'the figure' }, ...records(session.project!.scenes, (s) => s.name)]"
          @change="change({ scene: $event || null })"
      /></form-row>
      <p v-if="shot.scene === null" class="quiet">{{ pose }}</p>
      <form-row v-if="session.project!.colourways.length > 0" label="Colourway"
        ><SelectField
          label="Colourway of the shot"
          :model-value="find(session.project!.colourways, shot.colourway)?.id ?? ''"
          @change="change({ colourway: $event || null })"
          :choices="[{ value: '', text: 'Palette' }, ...records(session.project!.colourways, (w) => w.name)]"
      /></form-row>
      <div class="row wrap">
        <CommandButton id="light.camera" text="Camera from this view" /><CommandButton
          id="light.pose"
          text="Pose from Animate"
        />
      </div>
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h2>Sun</h2>
        <colour-field
          label="Colour of the sun"
          :model-value="shot.light.sun.colour"
          @change="(colour) => light('sun', { colour })"
        />
      </div>
      <div class="sun">
        <svg
          viewBox="0 0 96 96"
          class="dial"
          role="img"
          aria-label="Direction of the sun, seen from above; drag the sun"
          @pointerdown="around"
          @pointermove="around"
        >
          <circle cx="48" cy="48" r="43" />
          <circle cx="48" cy="48" r="22" class="mid" />
          <path d="M44 44h8v8h-8z" class="model" />
          <line x1="48" y1="48" :x2="dot.cx" :y2="dot.cy" />
          <circle :cx="dot.cx" :cy="dot.cy" r="6" class="disc" />
        </svg>
        <div class="figures-col">
          <NumberField
            label="angle"
            name="Sun direction"
            unit="°"
            :model-value="shot.light.sun.azimuth"
            :step="5"
            @change="(v) => light('sun', { azimuth: v })"
          /><NumberField
            label="height"
            name="Sun height"
            unit="°"
            :model-value="shot.light.sun.elevation"
            :min="-10"
            :max="90"
            :step="2"
            @change="(v) => light('sun', { elevation: v })"
          /><NumberField
            label="size"
            name="Sun width"
            unit="°"
            :model-value="shot.light.sun.size"
            :min="0.1"
            :max="90"
            @change="(v) => light('sun', { size: v })"
          />
        </div>
      </div>
      <NumberField
        label="strength"
        name="Sun strength"
        :model-value="shot.light.sun.strength"
        :min="0"
        :max="100"
        :step="0.1"
        @change="(v) => light('sun', { strength: v })"
      />
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h2>Sky and ground</h2>
        <span class="row"
          ><colour-field
            label="Colour overhead"
            tip="Overhead"
            :model-value="shot.light.sky.zenith"
            @change="(zenith) => light('sky', { zenith })" /><colour-field
            label="Colour of the horizon"
            tip="Horizon"
            :model-value="shot.light.sky.horizon"
            @change="(horizon) => light('sky', { horizon })" /><colour-field
            label="Colour of the ground"
            tip="Ground"
            :model-value="shot.light.ground.colour"
            @change="(colour) => light('ground', { colour })"
        /></span>
      </div>
      <div class="row">
        <NumberField
          label="sky"
          name="Sky strength"
          :model-value="shot.light.sky.strength"
          :min="0"
          :max="100"
          :step="0.1"
          @change="(v) => light('sky', { strength: v })"
        /><NumberField
          label="glow"
          name="Glow of swatches"
          :model-value="shot.light.glow"
          :min="0"
          :max="100"
          :step="0.1"
          @change="(v) => change({ light: { ...shot!.light, glow: v } })"
        />
      </div>
      <check-field
        :model-value="shot.light.ground.kind === 'colour'"
        @change="light('ground', { kind: $event ? 'colour' : 'none' })"
        >Ground</check-field
      >
    </section>
    <section class="panel-section">
      <h2>Picture</h2>
      <div class="row">
        <NumberField
          label="W"
          name="Picture width"
          :model-value="shot.size[0]"
          :min="16"
          :max="8192"
          :step="16"
          @change="(v) => change({ size: [Math.round(v), shot!.size[1]] })"
        /><NumberField
          label="H"
          name="Picture height"
          :model-value="shot.size[1]"
          :min="16"
          :max="8192"
          :step="16"
          @change="(v) => change({ size: [shot!.size[0], Math.round(v)] })"
        />
      </div>
      <div class="row">
        <NumberField
          label="samples"
          name="Samples"
          :model-value="shot.samples"
          :min="1"
          :max="65536"
          :step="8"
          @change="(v) => change({ samples: Math.round(v) })"
        /><NumberField
          label="exposure"
          name="Exposure"
          :model-value="shot.exposure"
          :min="-10"
          :max="10"
          :step="0.25"
          @change="(v) => change({ exposure: v })"
        />
      </div>
    </section>
  </div>
  <empty-state v-else text="Choose a shot, or make one from this view." />
</template>

<style scoped>
.wrap {
  flex-wrap: wrap;
}
.sun {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.dial {
  flex: none;
  width: 96px;
  height: 96px;
  cursor: grab;
  touch-action: none;
}
.dial circle {
  fill: var(--ground);
  stroke: var(--line-strong);
}
.dial .mid {
  fill: none;
  stroke: var(--line);
}
.dial .model {
  fill: var(--quiet);
}
.dial line {
  stroke: var(--honey);
  stroke-width: 2;
}
.dial .disc {
  fill: var(--honey);
  stroke: var(--resin);
}
.figures-col {
  display: grid;
  gap: 5px;
  flex: 1 1 104px;
  min-width: 0;
}
</style>
