<script setup lang="ts">
import { MESH_UNITS, type MeshOptions } from '@sphalerite/core/intake';
import { computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import SlideRow from '../../components/SlideRow.vue';
import { placeInHand } from '../../shell/files/place';
import { useBringing } from './bring-state';
import ColoursGo from './ColoursGo.vue';

/** How a mesh becomes parts. */
const bringing = useBringing();
const o = computed(() => bringing.options as MeshOptions);
const facts = computed(() => bringing.made?.facts ?? {});
const cube = computed(() => placeInHand()?.cube ?? 0.1);
/** In cubes. */
const high = computed(() => facts.value['size']?.[0] ?? o.value.height);
const hasUnit = computed(() => facts.value['size']?.[2] === 1);
const bones = computed(() => facts.value['bones'] ?? [0, 0]);
const clips = computed(() => facts.value['clips'] ?? [0, 0]);
/** Metres along its cubes, where it was found to be made of some. */
const exact = computed(() => {
  const cell = facts.value['exact']?.[0];
  return cell === undefined ? null : hasUnit.value ? cell : cell * MESH_UNITS[o.value.unit];
});
const length = (m: number): string => (m < 1 ? `${Math.round(m * 1000) / 10} cm` : `${Math.round(m * 100) / 100} m`);
const metres = (cubes: number): number => Math.round(cubes * cube.value * 1000) / 1000;
</script>

<template>
  <div>
    <section v-if="exact !== null || o.cubes === 'ignored'" class="panel-section">
      <div class="panel-head">
        <h3>Cubes</h3>
        <span v-if="exact !== null" class="quiet figures">of {{ length(exact) }}</span>
      </div>
      <choice-field
        label="Whether it comes back cube for cube"
        wide
        :model-value="o.cubes === 'ignored' ? 'ignored' : 'found'"
        :choices="[
          { value: 'found', text: 'cube for cube', tip: 'Its faces lie on cubes: these come as they were' },
          { value: 'ignored', text: 'as a mesh', tip: 'In cubes of another size' },
        ]"
        @change="(cubes) => bringing.wish({ cubes })"
      />
    </section>

    <section v-if="exact === null" class="panel-section">
      <div class="panel-head">
        <h3>Size</h3>
        <span class="quiet figures">{{ metres(high) }} m high</span>
      </div>
      <div class="pair">
        <number-field
          label="cubes"
          name="Height in cubes"
          :model-value="Math.round(high)"
          :min="1"
          :max="4096"
          @change="(v) => bringing.wish({ size: 'cubes', height: Math.round(v) })"
        />
        <number-field
          label="m"
          name="Height in metres"
          :model-value="metres(high)"
          :min="metres(1)"
          @change="(v) => bringing.wish({ size: 'cubes', height: Math.max(1, Math.round(v / cube)) })"
        />
      </div>
      <div class="pair">
        <check-field
          :model-value="o.size === 'true'"
          tip="As large as its own numbers say"
          @change="(on) => bringing.wish({ size: on ? 'true' : 'cubes' })"
          >True size</check-field
        >
        <select-field
          v-if="!hasUnit"
          label="Unit of the file"
          :model-value="o.unit"
          :choices="Object.keys(MESH_UNITS).map((u) => ({ value: u, text: `in ${u}` }))"
          @change="(unit: string) => bringing.wish({ unit, size: 'true' })"
        />
      </div>
      <div class="pair">
        <choice-field
          label="Which way is up in the file"
          :model-value="o.up"
          :choices="[
            { value: 'y', text: 'Y up' },
            { value: 'z', text: 'Z up' },
          ]"
          @change="(up) => bringing.wish({ up })"
        />
        <select-field
          label="Turned"
          :model-value="o.turn"
          :choices="['0', '90', '180', '270'].map((t) => ({ value: t, text: `turned ${t}°` }))"
          @change="(turn: string) => bringing.wish({ turn })"
        />
      </div>
      <check-field
        v-if="o.cubes !== 'ignored'"
        :model-value="o.cubes === 'assumed'"
        tip="Take it cube for cube though little speaks for it: plain blocks, for instance"
        @change="(on) => bringing.wish({ cubes: on ? 'assumed' : 'found' })"
        >Made of cubes</check-field
      >
      <p v-if="o.cubes === 'assumed'" class="quiet">Its faces lie on no cubes of one size.</p>
    </section>

    <section class="panel-section">
      <div class="panel-head">
        <h3>Fill</h3>
        <span v-if="facts['holes']?.[0]" class="quiet figures">{{ facts['holes'][0] }} holes</span>
      </div>
      <choice-field
        label="What is filled"
        wide
        :model-value="o.fill"
        :choices="[
          { value: 'solid', text: 'solid', tip: 'All that is inside, holes and turned faces or not' },
          { value: 'surface', text: exact === null ? 'surface' : 'shell', tip: 'A skin of cubes' },
        ]"
        @change="(fill) => bringing.wish({ fill })"
      />
      <check-field
        v-if="exact === null"
        :model-value="o.thin"
        tip="Every cell that a triangle goes through, so that blades and cloth stay"
        @change="(thin) => bringing.wish({ thin })"
        >Keep thin</check-field
      >
    </section>

    <section class="panel-section">
      <div class="panel-head">
        <h3>Colours</h3>
        <span class="quiet figures">{{ facts['colours']?.[1] }}</span>
      </div>
      <choice-field
        label="Colours of the mesh"
        wide
        :model-value="o.colours"
        :choices="[
          { value: 'own', text: 'own' },
          { value: 'palette', text: 'palette', tip: 'The nearest of the palette in hand' },
        ]"
        @change="(colours) => bringing.wish({ colours })"
      />
      <template v-if="o.colours === 'own' && exact !== null"><colours-go /></template>
      <template v-else-if="o.colours === 'own'">
        <slide-row
          label="at most"
          name="At most so many colours"
          :model-value="o.most"
          :min="2"
          :max="255"
          @input="(most) => bringing.wish({ most })"
        />
        <select-field
          label="What a cube shows"
          :model-value="o.blend"
          :choices="[
            { value: 'auto', text: 'by how many there are' },
            { value: 'sharp', text: 'what most of it is' },
            { value: 'mean', text: 'the mean of it' },
          ]"
          @change="(blend: string) => bringing.wish({ blend })"
        />
        <colours-go />
      </template>
    </section>

    <section class="panel-section">
      <div class="panel-head">
        <h3>Parts</h3>
        <span class="quiet figures">{{ bringing.made?.project.parts.length }}</span>
      </div>
      <choice-field
        label="Parts"
        wide
        :model-value="o.parts"
        :choices="[
          { value: 'nodes', text: 'by node', tip: 'One for each node, with its name' },
          { value: 'one', text: 'one part' },
        ]"
        @change="(parts) => bringing.wish({ parts })"
      />
      <div v-if="o.parts === 'nodes' && bones[1]" class="checks">
        <check-field :model-value="o.bones" @change="(v) => bringing.wish({ bones: v })"
          >Bones<template v-if="bones[0]"> · {{ bones[0] }}</template></check-field
        >
        <check-field
          v-if="clips[1]"
          :model-value="o.clips"
          :disabled="!o.bones"
          @change="(v) => bringing.wish({ clips: v })"
          >Clips · {{ clips[1] }}</check-field
        >
      </div>
    </section>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px;
  align-items: center;
}
.checks {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
</style>
