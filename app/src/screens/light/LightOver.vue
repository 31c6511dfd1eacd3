<script setup lang="ts">
import { IconX } from '@tabler/icons-vue';
import { NO_GRADE } from '@sphalerite/core/model';
import type { Exposed } from '@sphalerite/core/render';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import SliderField from '../../components/SliderField.vue';
import { useDraft } from '../../shell/takes/draft';
import ExposureCard from './ExposureCard.vue';
import FilmView from '../../shell/takes/FilmView.vue';
import RegionFrame from './RegionFrame.vue';
import SunDrag from './SunDrag.vue';
import { useGuides } from './guides';
import LampHandles from './LampHandles.vue';
import { usePictures } from '../../shell/takes/pictures';
import { useShot } from './shot-in-hand';

/** Over the view: the frame of the picture with its guides, the draft in it, and in place of them a picture that was traced. */
const light = usePictures();
const draft = useDraft();
const hand = useShot();
const guides = useGuides();
const host = useTemplateRef<HTMLElement>('host');
const { width, height } = useElementSize(host);
/** Where the picture lies in the view, in pixels of the page: as large as it can. */
const frame = computed(() => {
  const [w, h] = (light.current?.shot ?? hand.shot)?.output.size ?? [16, 9];
  const k = Math.min(width.value / w, height.value / h);
  return {
    left: `${(width.value - w * k) / 2}px`,
    top: `${(height.value - h * k) / 2}px`,
    width: `${w * k}px`,
    height: `${h * k}px`,
  };
});
const figures = ref<Exposed | null>(null);
const grade = computed(() => {
  const p = light.current;
  const { grade } = (p && p.shot.id !== hand.shot?.id ? light.shotOf(p) : hand.shot)!;
  return guides.before ? NO_GRADE : grade;
});
/** A draft has fewer pixels: lines are as much thinner. */
const draftGrade = computed(() => {
  const { outline } = grade.value;
  const k = (draft.light?.width ?? 1) / hand.shot!.output.size[0];
  return { ...grade.value, outline: { ...outline, width: outline.width * k } };
});
/** How much of the picture that is compared with is seen, from the left. */
const share = ref(50);
</script>

<template>
  <div ref="host" class="over" :class="{ solid: light.current }">
    <div v-if="hand.shot" class="frame" :class="{ empty: !light.current }" :style="frame">
      <FilmView
        v-if="light.current"
        data-testid="picture"
        :film="light.shown(light.current)"
        :grade="grade"
        :transparent="light.current.shot.output.transparent"
        :grown="light.grown"
        :growing="light.tracing"
        :zebra="guides.zebra"
        :label="`Picture of ${light.current.shot.name}`"
        @exposed="(f) => (figures = f)"
      />
      <FilmView
        v-else-if="draft.light"
        data-testid="draft"
        :film="draft.light"
        :grade="draftGrade"
        :transparent="hand.shot.output.transparent"
        :grown="draft.grown"
        :growing="false"
        :zebra="guides.zebra"
        label="Draft of the picture"
        @exposed="(f) => (figures = f)"
      />
      <template v-if="light.current && light.beside">
        <div class="beside" :style="{ clipPath: `inset(0 ${100 - share}% 0 0)` }">
          <FilmView
            :film="light.shown(light.beside)"
            :grade="light.beside.shot.grade"
            :transparent="light.beside.shot.output.transparent"
            :grown="0"
            :growing="false"
            :zebra="false"
            :label="`Compared with ${light.beside.shot.name}`"
          />
        </div>
        <i class="cut" :style="{ left: `${share}%` }" aria-hidden="true" />
      </template>
      <svg v-if="guides.thirds" class="lines" viewBox="0 0 3 3" preserveAspectRatio="none" aria-hidden="true">
        <path d="M1 0V3M2 0V3M0 1H3M0 2H3" />
      </svg>
      <i v-if="guides.thirds" class="safe" aria-hidden="true" />
      <SunDrag v-if="guides.sunning && !light.current" />
      <RegionFrame v-if="guides.regioning || (guides.region && !light.current)" />
    </div>
    <LampHandles v-if="hand.shot && !light.current" />
    <ExposureCard
      v-if="guides.histogram && figures && hand.shot && (light.current || draft.light)"
      class="exposure"
      :figures="figures"
      :stops="grade.exposure"
    />
    <div v-if="light.current && light.beside" class="compare">
      <span class="figures">{{ light.beside.shot.name }}</span><SliderField
        label="How much of each is seen"
        :model-value="share"
        :min="0"
        :max="100"
        :step="1"
        @input="(v) => (share = v)"
      /><span class="figures">{{ light.current.shot.name }}</span
      ><action-button look="bare" @click="light.beside = null">end</action-button>
    </div>
    <action-button v-if="light.current && !light.tracing" class="back" @click="light.current = null">
      <IconX aria-hidden="true" />Back to the view
    </action-button>
  </div>
</template>

<style scoped>
.over {
  position: absolute;
  inset: 0;
  z-index: 0;
  overflow: hidden;
  pointer-events: none;
}
.over.solid {
  background: var(--ground);
  pointer-events: auto;
}
.frame {
  position: absolute;
}
.frame.empty {
  /* What is beside the picture is seen, darkened. */
  box-shadow: 0 0 0 4000px color-mix(in srgb, var(--ground) 78%, transparent);
  outline: 1px solid color-mix(in srgb, var(--ink) 45%, transparent);
}
.beside,
.lines,
.safe,
.cut {
  position: absolute;
  inset: 0;
}
.lines {
  width: 100%;
  height: 100%;
}
.lines path {
  fill: none;
  stroke: #fffc;
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
.safe {
  inset: 5%;
  border: 1px dashed #fff9;
}
.cut {
  width: 2px;
  right: auto;
  background: var(--honey);
}
.exposure {
  position: absolute;
  right: 14px;
  bottom: 14px;
}
.compare {
  position: absolute;
  left: 50%;
  bottom: 14px;
  transform: translateX(-50%);
  display: grid;
  grid-template-columns: auto 180px auto auto;
  align-items: center;
  gap: 8px;
  padding: 4px 12px;
  border-radius: var(--radius);
  background: var(--panel);
  pointer-events: auto;
}
.back {
  position: absolute;
  left: 14px;
  bottom: 14px;
  pointer-events: auto;
}
</style>
