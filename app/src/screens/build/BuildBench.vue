<script setup lang="ts">
import { IconBox, IconBrush, IconCubePlus, IconEraser, IconPoint, IconStackPush } from '@tabler/icons-vue';
import { FACE_REACHES, STROKE_VERBS } from '@sphalerite/core/sculpt';
import { computed } from 'vue';
import { REACHES, type ToolCard } from '../../tools/tool';
import { useBuild } from './build-state';
import SwatchPanel from './SwatchPanel.vue';

const build = useBuild();
const icon = (c: ToolCard): unknown => (c.reach === 'extrude' ? IconStackPush : c.verb === 'erase' ? IconEraser : c.verb === 'paint' ? IconBrush : c.reach === 'box' ? IconCubePlus : c.reach === 'point' ? IconPoint : IconBox);
const HINTS = {
  box: 'footprint, then height', point: 'click, or drag a trail', extrude: 'drag a face out or in',
} as const;
const faceNames = { face: 'whole face', colour: 'one colour', plane: 'whole plane' } as const;
const extruding = computed(() => build.card.reach === 'extrude');
</script>

<template>
  <div class="build-bench">
    <section class="tools" aria-label="Tools">
      <div class="panel-head"><h3>Tools</h3><span class="figures quiet">1–8</span></div>
      <div class="cards" role="radiogroup" aria-label="Tool in hand">
        <button v-for="(c, i) in build.cards" :key="i" type="button" role="radio" class="card" :class="{ on: i === build.index }" :aria-checked="i === build.index" :title="`${c.name} · ${i + 1}`" @click="build.index = i">
          <kbd class="n">{{ i + 1 }}</kbd><component :is="icon(c)" aria-hidden="true" /><span>{{ c.name }}</span>
        </button>
      </div>
    </section>
    <section class="options" aria-label="Options of the tool">
      <div class="panel-head"><h3>{{ build.card.name }}</h3><span class="quiet">{{ HINTS[build.card.reach] }}</span></div>
      <div class="option"><span class="quiet">Reach</span><div class="segments"><button v-for="r in REACHES" :key="r" type="button" :aria-pressed="build.card.reach === r" @click="build.setReach(r)">{{ r }}</button></div></div>
      <div v-if="!extruding" class="option"><span class="quiet">Verb</span><div class="segments"><button v-for="v in STROKE_VERBS" :key="v" type="button" :aria-pressed="build.card.verb === v" @click="build.setVerb(v)">{{ v }}</button></div></div>
      <div v-else class="option"><span class="quiet">Takes</span><div class="segments"><button v-for="f in FACE_REACHES" :key="f" type="button" :aria-pressed="build.card.face === f" @click="build.setFace(f)">{{ faceNames[f] }}</button></div></div>
      <div class="option"><span class="quiet">Mirror</span>
        <div class="row"><button v-for="(a, i) in ['X', 'Y', 'Z']" :key="a" type="button" class="btn axis" :class="[`axis-${a}`, { on: build.mirrorOn[i] }]" :aria-pressed="build.mirrorOn[i]" :aria-label="`Mirror ${a}`" @click="build.toggleMirror(i as 0 | 1 | 2)">{{ a }}</button></div>
      </div>
    </section>
    <SwatchPanel class="colours" />
  </div>
</template>

<style scoped>
.build-bench { display: grid; grid-template-columns: minmax(300px, 352px) minmax(250px, 296px) 1fr; height: 100%; }
section { padding: 9px 14px; border-right: 1px solid var(--line); min-width: 0; overflow: auto; }
.cards { display: grid; grid-template-columns: repeat(4, 1fr); gap: 7px 8px; margin-top: 5px; }
.card { position: relative; display: grid; justify-items: center; align-content: center; gap: 2px; height: 48px; border: 1px solid var(--line); border-radius: var(--radius); background: var(--raised); font-weight: 500; font-size: 12px; transition: border-color var(--quick); }
.card:hover { border-color: var(--line-strong); }
.card svg { width: 20px; height: 20px; stroke-width: 1.5; }
.card.on { background: #2a2521; border-color: var(--honey); color: #ffffff; }
.card.on svg { color: #f0b648; }
.n { position: absolute; left: 5px; top: 3px; border: 0; background: none; padding: 0; font-size: 10px; }
.card.on .n { color: #f0b648; }
.option { display: grid; grid-template-columns: 52px 1fr; align-items: center; margin-top: 6px; }
.segments { justify-self: start; }
.axis { width: 28px; padding: 0; font-weight: 600; }
.axis-X { color: var(--axis-x); }
.axis-Y { color: var(--axis-y); }
.axis-Z { color: var(--axis-z); }
.axis.on { color: #ffffff; border-color: transparent; }
.axis-X.on { background: #a32a22; }
.axis-Y.on { background: #2c6b2a; }
.axis-Z.on { background: #1f4f8f; }
.colours { border-right: 0; }
</style>
