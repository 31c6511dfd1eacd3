<script setup lang="ts">
import { IconUser } from '@tabler/icons-vue';
import { type Placement, partsInUse } from '@sphalerite/core/model';
import { type RepeatWishes, repeatEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import EmptyState from '../../components/EmptyState.vue';
import ListRow from '../../components/ListRow.vue';
import NumberField from '../../components/NumberField.vue';
import PartPicture from '../../components/PartPicture.vue';
import SelectField from '../../components/SelectField.vue';
import SlideRow from '../../components/SlideRow.vue';
import { vDrag } from '../../components/drag';
import { useSession } from '../../stores/session';
import StageCosts from './StageCosts.vue';
import { placementName } from './shown';
import { useStage } from './stage-state';

/** Pieces to put down, how the one in hand is repeated, and what the scene costs. */
const session = useSession();
const stage = useStage();
const parts = computed(() => {
  const all = session.project?.parts ?? [],
    used = new Set(partsInUse(all));
  return all.filter((p) => used.has(p));
});
const same = (shows: Placement['shows']): boolean => JSON.stringify(stage.placing) === JSON.stringify(shows);
function take(shows: Placement['shows']): void {
  stage.placing = same(shows) ? null : shows;
}
const repeat = computed(() => session.scene?.repeats.find((r) => r.placement === session.placement?.id) ?? null);
/** Fields of its own kind; the edit checks them. */
function wish(change: Readonly<Record<string, unknown>>): void {
  const { id: _id, placement, exceptions: _kept, ...wishes } = repeat.value!;
  session.apply(repeatEdit, {
    scene: session.scene!.id,
    placement,
    wishes: { ...wishes, ...change } as RepeatWishes,
  });
}
function along(key: 'counts' | 'step', axis: number, value: number): void {
  if (repeat.value?.kind === 'line') wish({ [key]: repeat.value[key].map((v, i) => (i === axis ? value : v)) });
}
function area(axis: number, value: number): void {
  if (repeat.value?.kind === 'scatter') wish({ area: repeat.value.area.map((v, i) => (i === axis ? value : v)) });
}
const others = computed(() =>
  (session.scene?.placements.flat() ?? [])
    .filter((p) => p.id !== session.placement?.id && p.shows.kind !== 'group')
    .map((p) => ({ value: p.id as string | null, text: `on ${placementName(session.project!, p)}` })),
);
const AXES = ['across', 'up', 'deep'] as const;
</script>

<template>
  <div class="stage-bench">
    <section aria-label="Place">
      <div class="head">
        <h3>Place</h3>
        <span class="quiet">click one, then where it stands</span>
      </div>
      <div class="palette" role="group" aria-label="Pieces">
        <list-row
          v-for="p in parts"
          :key="p.id"
          v-drag="() => ({ kind: 'part', ids: [p.id], label: p.name })"
          :on="same({ kind: 'part', part: p.id })"
          :label="`Place ${p.name}`"
          :tip="p.name"
          @click="take({ kind: 'part', part: p.id })"
        >
          <template #picture><PartPicture :project="session.inActiveColourway!" :part="p" /></template>
          <b>{{ p.name }}</b>
        </list-row>
        <list-row
          v-if="(session.project?.rig.bones.length ?? 0) > 0"
          :on="same({ kind: 'rig', clip: null, time: 0 })"
          label="Place the whole figure"
          tip="The whole figure, posed by its bones"
          @click="take({ kind: 'rig', clip: null, time: 0 })"
        >
          <template #picture
            ><span class="whole"><IconUser aria-hidden="true" /></span
          ></template>
          <b>{{ session.project!.name }}</b>
        </list-row>
        <list-row
          v-for="a in session.project?.assets ?? []"
          :key="a.id"
          v-drag="() => ({ kind: 'asset', ids: [a.id], label: a.name })"
          :on="same({ kind: 'asset', asset: a.id, clip: null, time: 0 })"
          :label="`Place ${a.name}`"
          :tip="a.name"
          @click="take({ kind: 'asset', asset: a.id, clip: null, time: 0 })"
        >
          <template #picture
            ><span class="whole"><IconUser aria-hidden="true" /></span
          ></template>
          <b>{{ a.name }}</b>
        </list-row>
      </div>
    </section>

    <section aria-label="Repeat">
      <div class="head">
        <h3>{{ repeat ? 'Repeat' : 'Handles' }}</h3>
        <span v-if="repeat" class="quiet">{{ repeat.kind === 'line' ? 'row' : repeat.kind }}</span>
      </div>
      <div v-if="!repeat" class="handles">
        <choice-field
          v-model="stage.step"
          label="Moved by"
          :choices="[
            { value: 1, text: '1', name: 'Whole units' },
            { value: 0.5, text: '½', name: 'Half units' },
            { value: 0, text: 'free', name: 'Any length' },
          ]"
        />
        <choice-field
          v-model="stage.turn"
          label="Turned by"
          :choices="[
            { value: 15, text: '15°', name: 'Steps of 15 degrees' },
            { value: 90, text: '90°', name: 'Quarter turns' },
            { value: 1, text: '1°', name: 'Single degrees' },
          ]"
        />
        <check-field v-model="stage.together" tip="About the one in hand; else each about its own origin"
          >Together</check-field
        >
      </div>
      <template v-else-if="repeat.kind === 'line'">
        <div v-for="(name, a) in AXES" :key="name" class="pair">
          <number-field
            :label="name"
            :name="`Count ${name}`"
            :model-value="repeat.counts[a]!"
            :min="1"
            :max="1000"
            @change="
              (v) =>
                wish({
                  counts: repeat!.kind === 'line' ? repeat!.counts.with(a, Math.round(v)) : undefined,
                })
            "
          />
          <number-field
            label="by"
            :name="`Distance ${name}`"
            :model-value="repeat.step[a]!"
            @change="(v) => along('step', a, v)"
          />
        </div>
      </template>
      <template v-else>
        <slide-row
          label="count"
          name="How many there are"
          :model-value="repeat.count"
          :min="1"
          :max="Math.max(100, repeat.count)"
          @input="(count) => wish({ count })"
        />
        <template v-if="repeat.kind === 'ring'">
          <slide-row
            label="round"
            name="Degrees of the ring"
            :model-value="repeat.degrees"
            :min="15"
            :max="360"
            :step="15"
            @input="(degrees) => wish({ degrees })"
          />
          <check-field :model-value="repeat.turning" @change="(turning) => wish({ turning })">Turned along</check-field>
        </template>
        <template v-else-if="repeat.kind === 'path'">
          <check-field :model-value="repeat.facing" @change="(facing) => wish({ facing })"
            >Faces the way it goes</check-field
          >
          <check-field :model-value="repeat.closed" @change="(closed) => wish({ closed })">Closed</check-field>
        </template>
        <template v-else>
          <slide-row
            label="apart"
            name="Least distance between two"
            :model-value="repeat.apart"
            :min="0"
            :max="Math.max(20, repeat.apart)"
            @input="(apart) => wish({ apart })"
          />
          <slide-row
            label="turn"
            name="Most that one is turned, in degrees"
            :model-value="repeat.turn"
            :min="0"
            :max="180"
            :step="5"
            @input="(turn) => wish({ turn })"
          />
          <slide-row
            label="size ±"
            name="Per cent by which sizes differ"
            :model-value="Math.round((repeat.sizes[1] - 1) * 100)"
            :min="0"
            :max="80"
            @input="(v) => wish({ sizes: [1 - v / 100, 1 + v / 100] })"
          />
          <div class="pair">
            <number-field
              label="wide"
              name="Width of the area"
              :model-value="repeat.area[0]"
              :min="1"
              @change="(v) => area(0, v)"
            />
            <number-field
              label="deep"
              name="Depth of the area"
              :model-value="repeat.area[1]"
              :min="1"
              @change="(v) => area(1, v)"
            />
          </div>
          <div class="pair">
            <number-field
              label="seed"
              name="Seed"
              :model-value="repeat.seed"
              :min="0"
              @change="(v) => wish({ seed: Math.round(v) })"
            />
            <select-field
              label="What they stand on"
              :model-value="repeat.on"
              :choices="[{ value: null, text: 'level' }, ...others]"
              @change="(on: string | null) => wish({ on })"
            />
          </div>
        </template>
      </template>
    </section>

    <section aria-label="What it costs">
      <StageCosts v-if="session.scene" />
      <empty-state v-else text="A scene’s costs are told here." />
    </section>
  </div>
</template>

<style scoped>
.stage-bench {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr) minmax(0, 1.4fr);
  height: 100%;
}
.stage-bench > section {
  min-width: 0;
  padding: 8px 14px;
  overflow: auto;
}
.stage-bench > section + section {
  border-left: 1px solid var(--line);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 6px;
}
.palette {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(58px, 1fr));
  gap: 4px;
}
.palette .list-item :deep(.list-row) {
  padding: 3px 1px;
}
.palette .list-item :deep(.list-row > span) {
  flex-direction: column;
  gap: 1px;
  max-width: 100%;
}
.palette b {
  max-width: 100%;
  font-size: 10.5px;
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
}
.whole {
  display: grid;
  place-items: center;
  width: 40px;
  height: 40px;
  border-radius: var(--radius);
  background: linear-gradient(var(--view-top), var(--view-bottom));
  color: var(--quiet);
}
.handles {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
  margin-bottom: 4px;
}
</style>
