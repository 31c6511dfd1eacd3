<script setup lang="ts">
import { IconDice5 } from '@tabler/icons-vue';
import { type Id, type Repeat, type Shown, partsInUse } from '@sphalerite/core/model';
import { type RepeatWishes, clearExceptionsEdit, repeatEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import FormRow from '../../components/FormRow.vue';
import IconButton from '../../components/IconButton.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import SlideRow from '../../components/SlideRow.vue';
import { useSession } from '../../stores/session';
import { copyInHand, except, leaveOut } from './copy-in-hand';
import ScatterForm from './ScatterForm.vue';
import { fieldsOf, variationFields } from './repeat-fields';
import { repeatText } from './shown';

/** How what is in hand is repeated: all of it stays open to change. */
const props = defineProps<{ repeat: Repeat }>();
const session = useSession();
/** As it is while a slider is dragged. */
const r = computed(
  () =>
    session.shown?.scenes.find((s) => s.id === session.scene?.id)?.repeats.find((o) => o.id === props.repeat.id) ??
    props.repeat,
);
/** Fields of its own kind; the edit checks them. */
function wish(change: Readonly<Record<string, unknown>>, done = true): void {
  const { id: _id, placement, exceptions: _kept, ...wishes } = props.repeat;
  const args = { scene: session.scene!.id, placement, wishes: { ...wishes, ...change } as RepeatWishes };
  if (done) session.apply(repeatEdit, args);
  else session.preview = session.tryEdit(repeatEdit, args, true);
}
const fields = computed(() => [...fieldsOf(r.value), ...(r.value.kind === 'mirror' ? [] : variationFields(r.value))]);
const AXES = ['across', 'up', 'deep'] as const;
function along(key: 'counts' | 'step', axis: number, value: number): void {
  if (props.repeat.kind === 'line') wish({ [key]: props.repeat[key].map((v, i) => (i === axis ? value : v)) });
}
const parts = computed(() =>
  partsInUse(session.project?.parts ?? []).map((p) => ({ value: p.id as Id | null, text: p.name })),
);
const part = (id: Id): Shown => ({ kind: 'part', part: id });
const copy = computed(copyInHand);
</script>

<template>
  <section aria-label="Repeat">
    <div class="head">
      <h3>Repeat</h3>
      <span class="quiet">{{ repeatText(repeat) }}</span>
    </div>
    <div v-if="copy" class="copy">
      <b>Copy {{ copy.copy + 1 }}</b>
      <action-button tip="This one alone; the others stay" @click="leaveOut(copy)">Leave out</action-button>
      <action-button :disabled="!copy.differs" tip="Where the repeat has it" @click="except(copy, null)"
        >As the rest</action-button
      >
    </div>
    <template v-if="r.kind === 'line'">
      <div v-for="(name, a) in AXES" :key="name" class="pair">
        <number-field
          :label="name"
          :name="`Count ${name}`"
          :model-value="r.counts[a]!"
          :min="1"
          :max="1000"
          @change="(v) => along('counts', a, Math.round(v))"
        />
        <number-field
          label="by"
          :name="`Distance ${name}`"
          :model-value="r.step[a]!"
          @change="(v) => along('step', a, v)"
        />
      </div>
      <form-row label="every second"
        ><select-field
          label="What every second one is"
          :model-value="r.second?.kind === 'part' ? r.second.part : null"
          :choices="[{ value: null, text: 'the same' }, ...parts]"
          @change="(id: Id | null) => wish({ second: id && part(id) })"
      /></form-row>
    </template>
    <div v-else-if="r.kind === 'mirror'" class="pair">
      <select-field
        label="Axis that it is mirrored across"
        :model-value="r.axis"
        :choices="[
          { value: 0, text: 'across X' },
          { value: 1, text: 'across Y' },
          { value: 2, text: 'across Z' },
        ]"
        @change="(axis: number) => wish({ axis })"
      />
      <number-field
        label="at"
        name="Where the mirror stands"
        :step="0.5"
        :model-value="r.at"
        @change="(at) => wish({ at })"
      />
    </div>
    <slide-row
      v-for="f in fields"
      :key="f.label"
      :label="f.label"
      :name="f.name"
      :model-value="f.value"
      :min="f.min"
      :max="f.max"
      :step="f.step ?? 1"
      @input="(v) => wish(f.with(v), false)"
      @change="(v) => wish(f.with(v))"
    />
    <check-field v-if="r.kind === 'ring'" :model-value="r.turning" @change="(turning) => wish({ turning })"
      >Turned along</check-field
    >
    <div v-else-if="r.kind === 'path'" class="line">
      <check-field :model-value="r.facing" @change="(facing) => wish({ facing })">Faces the way it goes</check-field>
      <check-field :model-value="r.closed" @change="(closed) => wish({ closed })">Closed</check-field>
    </div>
    <ScatterForm v-else-if="r.kind === 'scatter'" :repeat="r" @wish="(change) => wish(change)" />
    <div v-if="r.kind !== 'mirror'" class="line">
      <number-field
        label="seed"
        name="Seed"
        :model-value="r.vary.seed"
        :min="0"
        @change="(v) => wish({ vary: { ...repeat.vary, seed: Math.round(v) } })"
      /><icon-button
        :icon="IconDice5"
        label="Another seed"
        tip="Another chance"
        @click="wish({ vary: { ...repeat.vary, seed: repeat.vary.seed + 1 } })"
      />
      <action-button
        v-if="r.exceptions.length > 0"
        tip="All stand as the repeat has them again"
        @click="session.apply(clearExceptionsEdit, { scene: session.scene!.id, repeat: repeat.id })"
        >{{ r.exceptions.length === 1 ? '1 exception' : `${r.exceptions.length} exceptions` }}</action-button
      >
    </div>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
  margin-bottom: 4px;
}
.line,
.copy {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-bottom: 4px;
}
.line > :first-child {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.copy {
  padding: 4px 8px;
  border: 1px solid var(--honey);
  border-radius: var(--radius);
}
.copy b {
  flex: 1;
  white-space: nowrap;
}
</style>
