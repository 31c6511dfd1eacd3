<script setup lang="ts">
import { type Axis, type Vec3, withAxis } from '@sphalerite/core/math';
import { type Placement, TICKS, composite, find, lookUp, usersOfParts, placementName } from '@sphalerite/core/model';
import {
  breakRepeatEdit,
  carvePlacementsEdit,
  combinePlacementsEdit,
  planCombinePlacements,
  changePlacementsEdit,
  endRepeatEdit,
  freshGrid,
  freshRepeat,
  repeatEdit,
  swapPlacementsEdit,
} from '@sphalerite/core/project';
import type { Combining } from '@sphalerite/core/sculpt';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CommandButton from '../../components/CommandButton.vue';
import FormRow from '../../components/FormRow.vue';
import NameField from '../../components/NameField.vue';
import NumberField from '../../components/NumberField.vue';
import PartPicture from '../../components/PartPicture.vue';
import SelectField from '../../components/SelectField.vue';
import VectorField from '../../components/VectorField.vue';
import { records } from '../../components/choices';
import { useSession } from '../../stores/session';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';
import { useAssetShelf } from './asset-shelf';
import { shownExtent } from './placing';
import ArrangePanel from './ArrangePanel.vue';
import CombinePanel, { type CombineJob } from '../shared/CombinePanel.vue';
import { repeatText } from './shown';

const props = defineProps<{ placement: Placement }>();
const session = useSession();
const assets = useAssetShelf();
/** As the document has it. */
const p = computed(() => props.placement);
/** As it is while a hand moves it. */
const shown = computed(
  () =>
    session.shown?.scenes
      .find((s) => s.id === session.scene?.id)
      ?.placements.flat()
      .find((o) => o.id === p.value.id) ?? p.value,
);
const part = computed(() =>
  p.value.shows.kind === 'part' ? (lookUp(session.project!.parts, p.value.shows.part) ?? null) : null,
);
const users = computed(() => (part.value ? (usersOfParts(session.project!.scenes).get(part.value.id) ?? 1) : 1));
const repeat = computed(() => session.scene?.repeats.find((r) => r.placement === p.value.id));
const round = (v: number): number => Math.round(v * 100) / 100;
const many = computed(() => session.view.chosen.placement);
const combining = computed(() => ({
  scene: session.scene!.id,
  home: session.hand.placement!,
  others: many.value.filter((id) => id !== session.hand.placement),
}));
const combineJob = (op: Combining | 'carve', keep: boolean): CombineJob =>
  op === 'carve'
    ? { edit: carvePlacementsEdit, args: combining.value }
    : { edit: combinePlacementsEdit, args: { ...combining.value, op, keep } };
const change = (to: Partial<Placement>): void =>
  void session.apply(changePlacementsEdit, {
    scene: session.scene!.id,
    changes: many.value.map((id) => ({ id, change: to })),
  });
/** A number that is given counts for each that is chosen, along its axis alone. */
function place(key: 't' | 's', axis: Axis, value: number): void {
  const all = session.scene!.placements.flat().filter((o) => many.value.includes(o.id));
  session.apply(changePlacementsEdit, {
    scene: session.scene!.id,
    changes: all.map((o) => ({ id: o.id, change: { [key]: withAxis(o[key], axis, value) as Vec3 } })),
  });
}
function turn(axis: Axis, degrees: number): void {
  change({ q: fromDegrees(withComponent(toDegrees(p.value.q), axis, degrees)) });
}
const swap = (part: string | null): void =>
  void (
    part &&
    session.apply(swapPlacementsEdit, {
      scene: session.scene!.id,
      placements: many.value,
      shows: { kind: 'part', part },
    })
  );
const KINDS = [
  ['line', 'Row'],
  ['grid', 'Grid'],
  ['ring', 'Ring'],
  ['path', 'Path'],
  ['scatter', 'Scatter'],
  ['mirror', 'Mirror'],
] as const;
function begin(kind: (typeof KINDS)[number][0]): void {
  const e = shownExtent(session.project!, p.value.shows);
  const size: Vec3 = e ? [e.hi[0] - e.lo[0], e.hi[1] - e.lo[1], e.hi[2] - e.lo[2]] : [1, 1, 1];
  session.apply(repeatEdit, {
    scene: session.scene!.id,
    placement: p.value.id,
    wishes: kind === 'grid' ? freshGrid(size) : freshRepeat(kind, p.value.t, size),
  });
}
const clips = computed(() => {
  const shows = p.value.shows;
  if (shows?.kind === 'rig') return session.project!.clips;
  if (shows?.kind === 'asset') return find(session.project!.assets, shows.asset)?.project.clips ?? [];
  return null;
});
function play(clip: string | null, time: number): void {
  const { shows, id } = p.value;
  if (shows.kind !== 'rig' && shows.kind !== 'asset') return;
  session.apply(swapPlacementsEdit, {
    scene: session.scene!.id,
    placements: [id],
    shows: { ...shows, clip, time } as Placement['shows'],
  });
}
</script>

<template>
  <div>
    <section class="panel-section">
      <div class="panel-head">
        <name-field
          label="Name of the placement"
          :name="placementName(session.project!, p)"
          @rename="(name) => change({ name })"
        />
        <span class="quiet">{{
          many.length > 1 ? `${many.length} chosen` : p.shows.kind === 'asset' ? 'project' : p.shows.kind
        }}</span>
      </div>
      <vector-field name="Place" :model-value="shown.t.map(round)" :step="1" @change="(a, v) => place('t', a, v)" />
      <vector-field name="Turn" :model-value="toDegrees(shown.q)" :step="15" unit="°" @change="turn" />
      <number-field
        label="size"
        name="Size"
        :model-value="round(shown.s[0] * 100)"
        unit="%"
        :min="1"
        :step="5"
        @change="(v) => change({ s: [v / 100, v / 100, v / 100] })"
      />
      <div class="three">
        <CommandButton id="stage.drop" text="Drop" />
        <CommandButton id="stage.quarter" text="90°" />
        <CommandButton id="stage.duplicate" text="Copy" />
      </div>
    </section>

    <ArrangePanel v-if="many.length > 1" />
    <CombinePanel
      v-if="many.length > 1"
      carves
      :plan="(op) => planCombinePlacements(session.project!, { ...combining, op })"
      :job="combineJob"
      :chosen="many.join()"
      @done="session.choose({ placement: p.id })"
    />

    <section v-if="part" class="panel-section">
      <div class="panel-head">
        <h3>Part</h3>
        <span class="quiet">{{ users > 1 ? `linked ×${users}` : 'here alone' }}</span>
      </div>
      <div class="part">
        <PartPicture :project="session.inActiveColourway!" :part="part" />
        <span
          ><b>{{ part.name }}</b
          ><small class="figures quiet"
            >{{ part.bounds.size.join('×') }} · {{ composite(part).count.toLocaleString('en') }}</small
          ></span
        >
      </div>
      <div class="two">
        <CommandButton id="stage.open" text="Edit in place" />
        <CommandButton id="stage.own" text="Own part" />
        <CommandButton id="stage.refit" text="Refit" />
        <CommandButton id="stage.split" text="Split" />
      </div>
      <form-row label="swap for"
        ><select-field
          label="Another part in its place"
          :model-value="part.id"
          :choices="records(session.project!.parts, (o) => o.name)"
          @change="swap"
      /></form-row>
    </section>

    <section v-if="p.shows.kind === 'asset'" class="panel-section">
      <div class="panel-head">
        <h3>Project</h3>
        <span class="quiet">as it was taken in</span>
      </div>
      <action-button
        tip="Takes its project from the shelf again, and tells what changed"
        :disabled="!session.writable"
        @click="assets.refresh(p.shows.asset)"
        >Bring up to date</action-button
      >
    </section>

    <section v-if="clips" class="panel-section">
      <div class="panel-head"><h3>Moment</h3></div>
      <select-field
        label="Clip that it is in"
        :model-value="'clip' in p.shows ? p.shows.clip : null"
        :choices="[{ value: null, text: 'at rest' }, ...records(clips, (c) => c.name)]"
        @change="(clip: string | null) => play(clip, 0)"
      />
      <number-field
        v-if="'clip' in p.shows && p.shows.clip"
        label="at"
        name="Moment of the clip"
        unit="s"
        :step="0.1"
        :min="0"
        :model-value="round(p.shows.time / TICKS)"
        @change="(v) => 'clip' in p.shows && play(p.shows.clip, Math.round(v * TICKS))"
      />
    </section>

    <section v-if="(session.project?.colourways.length ?? 0) > 0 && p.shows.kind !== 'group'" class="panel-section">
      <div class="panel-head">
        <h3>Colourway</h3>
        <span class="quiet">of this one</span>
      </div>
      <select-field
        label="Colourway of the placement"
        :model-value="p.colourway"
        :choices="[{ value: null, text: 'the palette’s own' }, ...records(session.project!.colourways, (w) => w.name)]"
        @change="(colourway: string | null) => change({ colourway })"
      />
    </section>

    <section v-if="many.length === 1" class="panel-section">
      <div class="panel-head">
        <h3>Repeat</h3>
        <span class="quiet">{{ repeat ? repeatText(repeat) : '' }}</span>
      </div>
      <div class="kinds">
        <action-button
          v-for="[kind, text] in KINDS"
          :key="kind"
          :on="repeat?.kind === kind"
          :disabled="!session.writable"
          @click="begin(kind)"
          >{{ text }}</action-button
        >
      </div>
      <div v-if="repeat" class="two">
        <action-button
          tip="Each copy becomes a placement of its own"
          @click="session.apply(breakRepeatEdit, { scene: session.scene!.id, placement: p.id })"
          >Break up</action-button
        >
        <action-button @click="session.apply(endRepeatEdit, { scene: session.scene!.id, placement: p.id })"
          >End repeat</action-button
        >
      </div>
      <p v-else class="quiet">Count and distance stay open to change.</p>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
}
.kinds {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px;
}
.kinds + .two,
.two + .two {
  margin-top: 6px;
}
.three {
  display: grid;
  grid-template-columns: 1.25fr 0.8fr 1.25fr;
  gap: 6px;
  margin-top: 6px;
}
.three :deep(.action) {
  min-width: 0;
  padding: 0 4px;
  overflow: hidden;
}
.part {
  display: flex;
  gap: 10px;
  align-items: center;
}
.part span:last-child {
  display: grid;
}
</style>
