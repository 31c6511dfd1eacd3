<script setup lang="ts">
import { MAX_EDGE } from '@sphalerite/core/voxel';
import { type Box, type Vec3, mapVec } from '@sphalerite/core/math';
import { computed } from 'vue';
import NumberField from '../../components/NumberField.vue';
import {
  FACE_REACHES,
  PATHS,
  PROFILES,
  REACHES,
  REGION_KINDS,
  SECTIONS,
  STANDS,
  TIPS,
  VERBS,
  type CardOptions,
} from '../../tools/card';
import { runCommand } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';
import { SELECT_MODES } from './selection/chosen-cells';
import { useSelection } from './selection/selection-state';

const build = useBuild();
const session = useSession();
const selection = useSelection();
const HINTS: Record<(typeof REACHES)[number], string> = {
  point: 'click, or drag a trail',
  brush: 'drag a trail',
  line: 'drag from end to end',
  box: 'footprint, then height',
  ellipsoid: 'footprint, then height',
  cylinder: 'footprint, then height',
  extrude: 'drag a face out or in',
  fill: 'click',
  stamp: 'click to place',
  opening: 'drag over a wall, or click',
};
const SHORT: Record<(typeof REACHES)[number], string> = {
  point: 'point',
  brush: 'brush',
  line: 'line',
  box: 'box',
  ellipsoid: 'ellipsoid',
  cylinder: 'cylinder',
  extrude: 'extrude',
  fill: 'fill',
  stamp: 'stamp',
  opening: 'opening',
};
const FACES = { face: 'whole face', colour: 'one colour', plane: 'whole plane' } as const;
const REGIONS = {
  connected: 'piece',
  colour: 'hue',
  'all of colour': 'all of hue',
  face: 'face',
  space: 'space',
} as const;
const c = computed(() => build.card);
const set = (more: Partial<CardOptions>): void => build.setOption(more);
const solid = computed(() => ['box', 'ellipsoid', 'cylinder'].includes(c.value.reach));
const grows = computed(() => c.value.verb === 'add' && !['fill', 'stamp', 'opening'].includes(c.value.reach));
const fixed = computed(() => c.value.reach === 'extrude' || c.value.reach === 'opening');
const box = computed(() => build.waiting?.box ?? null);
function byNumbers(): void {
  const part = session.part!;
  const b = build.limit ?? part.bounds;
  const size: Vec3 = [Math.min(5, b.size[0]), Math.min(5, b.size[1]), Math.min(5, b.size[2])];
  build.waiting?.hold({
    min: [b.min[0] + ((b.size[0] - size[0]) >> 1), b.min[1], b.min[2] + ((b.size[2] - size[2]) >> 1)],
    size,
  });
}
function hold(what: 'min' | 'size', axis: number, v: number): void {
  const b = box.value;
  if (!b) return;
  const next: Box = { ...b, [what]: mapVec(b[what], (o, i) => (i === axis ? Math.round(v) : o)) };
  build.waiting?.hold(next);
}
</script>

<template>
  <section aria-label="Options of the tool">
    <div class="panel-head">
      <h3>{{ c.name }}</h3>
      <span class="quiet">{{ HINTS[c.reach] }}</span><button
        v-if="!box && solid && session.part"
        type="button"
        class="link"
        title="Give size and place by numbers"
        @click="byNumbers"
      >
        by numbers
      </button>
    </div>
    <div v-if="!box" class="line">
      <div v-if="!fixed" class="segments" role="group" aria-label="Verb">
        <button v-for="v in VERBS" :key="v" type="button" :aria-pressed="c.verb === v" @click="build.setVerb(v)">
          {{ v }}
        </button>
      </div>
      <select
        class="pick"
        aria-label="Reach"
        :value="c.reach"
        @change="build.setReach(($event.target as HTMLSelectElement).value as typeof c.reach)"
      >
        <option v-for="r in REACHES" :key="r" :value="r">{{ SHORT[r] }}</option>
      </select>
    </div>
    <div v-if="c.verb === 'select'" class="line">
      <span class="quiet">Takes</span>
      <div class="segments" role="group" aria-label="What becomes of the selection">
        <button
          v-for="m in SELECT_MODES"
          :key="m"
          type="button"
          :aria-pressed="selection.mode === m"
          @click="selection.mode = m"
        >
          {{ m }}
        </button>
      </div>
    </div>
    <div v-if="c.reach === 'extrude'" class="line">
      <span class="quiet">Takes</span>
      <div class="segments">
        <button v-for="f in FACE_REACHES" :key="f" type="button" :aria-pressed="c.face === f" @click="set({ face: f })">
          {{ FACES[f] }}
        </button>
      </div>
    </div>
    <div v-if="c.reach === 'fill'" class="line">
      <div class="segments" role="group" aria-label="Region">
        <button
          v-for="r in REGION_KINDS"
          :key="r"
          type="button"
          :aria-pressed="c.region === r"
          @click="set({ region: r })"
        >
          {{ REGIONS[r] }}
        </button>
      </div>
    </div>
    <label v-if="c.reach === 'fill' && c.region !== 'face'" class="check"
      ><input type="checkbox" :checked="c.diagonals" @change="set({ diagonals: !c.diagonals })" />corners and edges
      connect</label
    >
    <template v-if="c.reach === 'brush'">
      <div class="line">
        <div class="segments" role="group" aria-label="Tip">
          <button v-for="t in TIPS" :key="t" type="button" :aria-pressed="c.tip === t" @click="set({ tip: t })">
            {{ t }}
          </button>
        </div>
        <NumberField
          class="small"
          label="Size"
          name="Size of the brush"
          :model-value="c.size"
          :min="1"
          :max="64"
          @change="(v) => set({ size: Math.round(v) })"
        />
      </div>
    </template>
    <template v-if="c.reach === 'line'">
      <div class="line">
        <div class="segments" role="group" aria-label="Path">
          <button v-for="p in PATHS" :key="p" type="button" :aria-pressed="c.path === p" @click="set({ path: p })">
            {{ p }}
          </button>
        </div>
        <template v-if="c.path === 'steps'"
          ><NumberField
            class="tiny"
            label="Rise"
            name="Rise"
            :model-value="c.rise"
            :min="1"
            :max="64"
            @change="(v) => set({ rise: Math.round(v) })" /><NumberField
            class="tiny"
            label="Run"
            name="Run"
            :model-value="c.run"
            :min="1"
            :max="64"
            @change="(v) => set({ run: Math.round(v) })"
        /></template>
      </div>
      <div class="line">
        <NumberField
          class="small"
          label="Thick"
          name="Thickness"
          :model-value="c.size"
          :min="1"
          :max="64"
          @change="(v) => set({ size: Math.round(v), endSize: c.size === c.endSize ? Math.round(v) : c.endSize })"
        /><NumberField
          class="small"
          label="to"
          name="Thickness at the end"
          :model-value="c.endSize"
          :min="1"
          :max="64"
          @change="(v) => set({ endSize: Math.round(v) })"
        /><label class="check"
          ><input type="checkbox" :checked="c.joined" @change="set({ joined: !c.joined })" />faces meet</label
        >
      </div>
    </template>
    <template v-if="solid">
      <div v-if="c.reach === 'cylinder'" class="line">
        <select
          class="pick"
          aria-label="Profile"
          :value="c.profile"
          @change="set({ profile: ($event.target as HTMLSelectElement).value as typeof c.profile })"
        >
          <option v-for="p in PROFILES" :key="p" :value="p">{{ p }}</option>
        </select>
        <select
          class="pick"
          aria-label="Section"
          :value="c.section"
          @change="set({ section: ($event.target as HTMLSelectElement).value as typeof c.section })"
        >
          <option v-for="p in SECTIONS" :key="p" :value="p">{{ p }}</option>
        </select>
        <select
          class="pick"
          aria-label="Stands along"
          :value="c.stand"
          @change="set({ stand: ($event.target as HTMLSelectElement).value as typeof c.stand })"
        >
          <option v-for="p in STANDS" :key="p" :value="p">{{ p === 'surface' ? 'surface' : `on ${p}` }}</option>
        </select>
        <label class="check" title="Slice by slice: each click sets one and shows the next"
          ><input type="checkbox" :checked="c.slices" @change="set({ slices: !c.slices })" />slices</label
        >
        <NumberField
          v-if="c.profile === 'taper'"
          class="tiny"
          label="Top"
          name="Width of the top"
          unit="%"
          :model-value="c.top"
          :min="0"
          :max="100"
          @change="(v) => set({ top: v })"
        />
      </div>
      <div v-if="c.verb !== 'select'" class="line">
        <div class="segments" role="group" aria-label="Inside">
          <button type="button" :aria-pressed="c.wall === 0" @click="set({ wall: 0 })">solid</button
          ><button type="button" :aria-pressed="c.wall > 0" @click="set({ wall: c.wall || 1 })">hollow</button>
        </div>
        <template v-if="c.wall > 0"
          ><NumberField
            class="wall"
            label="Wall"
            name="Wall"
            :model-value="c.wall"
            :min="1"
            :max="64"
            @change="(v) => set({ wall: Math.round(v) })"
          />
          <label v-if="c.reach !== 'ellipsoid'" class="check"
            ><input type="checkbox" :checked="c.open" @change="set({ open: !c.open })" />open</label
          ><label class="check" title="Cubes of the wall meet in faces, which is thicker on slants"
            ><input type="checkbox" :checked="c.tight" @change="set({ tight: !c.tight })" />tight</label
          ></template
        >
      </div>
      <div class="line checks">
        <label class="check" title="Hold Ctrl"
          ><input type="checkbox" :checked="c.centre" @change="set({ centre: !c.centre })" />from centre</label
        ><label class="check" title="Hold Shift"
          ><input type="checkbox" :checked="c.equal" @change="set({ equal: !c.equal })" />equal sides</label
        ><label v-if="grows" class="check" title="New cubes take the colour of the cube they grow from"
          ><input type="checkbox" :checked="c.grow" @change="set({ grow: !c.grow })" />grow colour</label
        >
      </div>
    </template>
    <template v-if="c.reach === 'opening'">
      <div class="line">
        <NumberField
          class="tiny"
          label="Border"
          name="Border"
          :model-value="c.border"
          :min="0"
          :max="32"
          @change="(v) => set({ border: Math.round(v) })"
        /><NumberField
          class="tiny"
          label="Proud"
          name="Proud"
          :model-value="c.proud"
          :min="0"
          :max="32"
          @change="(v) => set({ proud: Math.round(v) })"
        /><NumberField
          v-if="c.filling !== 0"
          class="tiny"
          label="Recess"
          name="Recess"
          :model-value="c.recess"
          :min="0"
          :max="64"
          @change="(v) => set({ recess: Math.round(v) })"
        />
      </div>
      <div class="line">
        <select
          class="pick wide"
          aria-label="Filling"
          :value="c.filling"
          @change="set({ filling: Number(($event.target as HTMLSelectElement).value) })"
        >
          <option :value="0">a hole through the wall</option>
          <option v-for="s in build.palette?.swatches ?? []" :key="s.byte" :value="s.byte">{{ s.name }}</option></select
        ><label class="check"><input type="checkbox" :checked="c.sill" @change="set({ sill: !c.sill })" />sill</label>
      </div>
    </template>
    <template v-if="c.reach === 'stamp'">
      <div class="line">
        <select
          class="pick wide"
          aria-label="Stamp"
          :value="build.stamp ?? session.project?.stamps[0]?.id"
          @change="build.stamp = ($event.target as HTMLSelectElement).value"
        >
          <option v-for="s in session.project?.stamps ?? []" :key="s.id" :value="s.id">
            {{ s.name }} {{ s.bounds.size.join('×') }}
          </option>
        </select>
      </div>
      <p v-if="(session.project?.stamps.length ?? 0) === 0" class="quiet">
        Select something and keep it as a stamp (Ctrl+B) first.
      </p>
    </template>
    <label v-if="grows && !solid && c.reach !== 'extrude'" class="check"
      ><input type="checkbox" :checked="c.grow" @change="set({ grow: !c.grow })" />grow colour</label
    >
    <label v-if="c.reach === 'extrude'" class="check"
      ><input type="checkbox" :checked="c.grow" @change="set({ grow: !c.grow })" />grow colour: each cube keeps that of
      the one below</label
    >
    <template v-if="solid || c.reach === 'opening'">
      <div v-if="box" class="line numbers" aria-label="The shape that waits">
        <NumberField
          v-for="(a, i) in ['W', 'H', 'D']"
          :key="a"
          class="tiny"
          :label="a"
          :name="`Shape ${['width', 'height', 'depth'][i]}`"
          :model-value="box.size[i]!"
          :min="1"
          :max="MAX_EDGE"
          @change="(v) => hold('size', i, v)"
        />
        <NumberField
          v-for="(a, i) in ['x', 'y', 'z']"
          :key="a"
          class="tiny"
          :label="a"
          :axis="a as 'x'"
          :name="`Shape ${a}`"
          :model-value="box.min[i]!"
          @change="(v) => hold('min', i, v)"
        />
      </div>
      <button v-if="box" type="button" class="btn primary set" @click="build.waiting?.set()">Set it</button>
    </template>
    <button v-if="build.job" type="button" class="btn" @click="runCommand('tool.cancel')">Stop</button>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-top: 6px;
}
.segments button {
  padding: 0 7px;
  min-height: 25px;
}
.pick {
  height: 27px;
  padding: 0 4px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
  min-width: 0;
}
.pick.wide {
  flex: 1;
}
.small {
  flex: 0 1 92px;
}
.tiny {
  flex: 0 1 82px;
  height: 26px;
  padding: 0 6px;
  gap: 4px;
}
.wall {
  flex: 0 0 66px;
  height: 26px;
  padding: 0 6px;
  gap: 4px;
}
.numbers {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 4px;
}
.numbers .tiny {
  padding: 0 4px;
  gap: 2px;
}
.set {
  margin-top: 6px;
  min-height: 26px;
}
.check {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  font-size: 12px;
  margin-top: 5px;
  cursor: pointer;
}
.line .check {
  margin-top: 0;
}
.check input {
  accent-color: var(--resin);
  margin: 0;
}
.checks {
  gap: 9px;
}
.checks .check {
  font-size: 11.5px;
}
.panel-head > * {
  white-space: nowrap;
}
@media (max-width: 1180px) {
  .panel-head .quiet {
    display: none;
  }
}
.link {
  color: var(--resin);
  text-decoration: underline;
  font-size: 12px;
}
</style>
