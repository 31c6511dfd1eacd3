<script setup lang="ts">
import { IconBrush } from '@tabler/icons-vue';
import { type Part, sideSuffix } from '@sphalerite/core/model';
import { joinPartsEdit, setBackEdit } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import NumberField from '../../../components/NumberField.vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { useSelection } from '../selection/selection-state';
import { useApart } from './apart-state';
import PartsToLookAt from './PartsToLookAt.vue';
import RegionList from './RegionList.vue';
import TwinsList from './TwinsList.vue';
import ActionButton from '../../../components/ActionButton.vue';
import CheckField from '../../../components/CheckField.vue';
import SelectField from '../../../components/SelectField.vue';
import { records } from '../../../components/choices';
import { say } from '../../../words';

const apart = useApart();
const session = useSession();
const build = useBuild();
const selection = useSelection();
const WAYS = [
  ['Pieces', 'What hangs together by faces', apart.byPieces],
  ['Colours', 'One piece for each colour, with its shades', apart.byColours],
  [
    'Patches',
    'One piece for each connected patch of a colour and its shades; specks go with what they touch',
    apart.byPatches,
  ],
  ['Layers', 'One piece for each layer above the lowest', apart.byLayers],
  ['Cut at guide', 'Cuts the piece in hand, or the rest, at the guide plane', apart.byPlane],
] as const;
const nameOf = (p: Part): string => p.name + sideSuffix(p.side);
const percent = (v: number): string => (v === 0 ? '0 %' : v < 0.01 ? 'under 1 %' : `${Math.round(v * 100)} %`);
const worstName = computed(() => apart.regions.find((r) => r.byte === apart.worst?.region)?.name ?? '');
const again = computed(() => apart.earlier.length > 0);

const other = ref('');
const back = ref(0);
const mates = computed(() => session.project?.parts.filter((p) => p.id !== session.part?.id && !p.hidden) ?? []);
function join(): void {
  if (session.part && other.value && session.apply(joinPartsEdit, { parts: [session.part.id, other.value] }))
    other.value = '';
}
function setBack(): void {
  if (session.part && other.value)
    session.apply(setBackEdit, { part: session.part.id, from: other.value, by: back.value });
}
</script>

<template>
  <div>
    <section v-if="apart.whole" class="panel-section" aria-label="The whole">
      <p class="quiet">Taken from “{{ apart.whole.name }}”, which is kept aside.</p>
      <action-button @click="apart.workOnWhole()">Work on the whole</action-button>
      <action-button
        tip="The parts get its cubes of today; names, pivots and bones stay"
        @click="apart.take(apart.whole)"
      >
        Take apart again
      </action-button>
      <check-field tip="So that a cut fits whatever is changed about it" v-model="apart.giving"
        >Erase gives cubes to the part beside</check-field
      >
    </section>
    <section class="panel-section" aria-label="Take apart">
      <div class="panel-head">
        <h2>Take apart</h2>
        <span v-if="session.part" class="quiet">{{ nameOf(session.part) }}</span>
      </div>
      <p v-if="apart.regions.length === 0" class="quiet">
        Say what becomes a part of its own. What is left stays together.
      </p>
      <div class="row">
        <action-button
          class="grow"
          :on="selection.selected !== null"
          tip="What is selected becomes a piece"
          keys="Alt+J"
          @click="apart.bySelection()"
        >
          From selection
        </action-button>
        <action-button
          class="grow"
          :on="apart.painting && apart.hand === null"
          tip="The next stroke begins a piece"
          keys="Alt+K"
          @click="apart.paint(null)"
        >
          <IconBrush aria-hidden="true" />Paint one
        </action-button>
      </div>
      <div class="ways">
        <action-button v-for="[name, tip, go] in WAYS" :key="name" :tip="tip" @click="go()">
          {{ name }}
        </action-button>
      </div>
      <div v-if="build.guide" class="row">
        <NumberField
          label="teeth"
          name="Teeth of the cut in cubes"
          :model-value="apart.teeth"
          :min="0"
          :max="16"
          @change="(v) => (apart.teeth = Math.round(v))"
        /><span class="quiet hint">{{ apart.teeth === 0 ? 'a straight cut' : 'both sides interlock' }}</span>
      </div>
      <action-button
        v-if="apart.swappable"
        tip="The other half of the last cut becomes the piece"
        @click="apart.swapHalves()"
        >Swap the halves</action-button
      >
      <RegionList />
      <p v-if="apart.regions.length > 0" class="quiet figures">
        {{ say('apart.rest', { n: apart.free.count }) }}
      </p>
    </section>
    <section v-if="apart.regions.length > 0" class="panel-section" aria-label="How it is taken apart">
      <div class="pair">
        <NumberField
          label="plug"
          name="Plug in cubes"
          :model-value="apart.plug"
          :min="0"
          :max="32"
          @change="(v) => (apart.plug = Math.round(v))"
        /><NumberField
          label="clear"
          name="Clearance in cubes"
          :model-value="apart.clearance"
          :min="0"
          :max="8"
          @change="(v) => (apart.clearance = Math.round(v))"
        />
      </div>
      <p v-if="apart.worst" class="quiet hint" data-testid="gaps">
        Swung by 40°,
        {{
          apart.worst.share === 0
            ? 'no joint gapes.'
            : `“${worstName}” gapes most: ${percent(apart.worst.share)} of its cut.`
        }}
      </p>
      <check-field v-model="apart.socket">hollow a socket for each plug</check-field>
      <check-field v-if="!again" v-model="apart.bones">each on a new bone in its cut</check-field>
      <check-field v-if="!again" v-model="apart.keepWhole">keep the whole aside, hidden</check-field>
      <action-button look="primary" @click="apart.take()">
        {{
          again ? 'Take apart again' : say('apart.take', { n: apart.regions.length + (apart.free.count > 0 ? 1 : 0) })
        }}
      </action-button>
    </section>
    <TwinsList />
    <section v-if="mates.length > 0" class="panel-section" aria-label="Join">
      <div class="panel-head"><h2>With another part</h2></div>
      <SelectField
        v-model="other"
        label="Join with"
        placeholder="choose…"
        :choices="records(mates, (p) => nameOf(p))"
      />
      <div class="row">
        <action-button :disabled="!other" @click="join">Join</action-button
        ><action-button
          :disabled="!other"
          tip="Takes away the cubes of this part that stand in the other, or nearer than so many cubes"
          @click="setBack"
        >
          Set back</action-button
        ><NumberField
          label="by"
          name="Set back by cubes"
          :model-value="back"
          :min="0"
          :max="16"
          @change="(v) => (back = Math.round(v))"
        />
      </div>
    </section>
    <PartsToLookAt />
    <p v-if="build.seen?.count === 0" class="panel-section quiet">This part is empty.</p>
  </div>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 6px;
}
.ways .el-button {
  grid-column: span 2;
  padding: 0 4px;
  font-size: 12px;
}
.ways .el-button:nth-child(n + 4) {
  grid-column: span 3;
}
.grow.el-button {
  flex: 1;
  padding: 0 6px;
}
.grow svg {
  width: 15px;
  height: 15px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.hint {
  font-size: 11.5px;
  line-height: 1.3;
}
.row .number-field {
  flex: 0 0 84px;
}
</style>
