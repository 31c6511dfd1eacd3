<script setup lang="ts">
import { IconX } from '@tabler/icons-vue';
import type { Vec3 } from '@sphalerite/core/math';
import { type Bone, type Constraint, chainOf, constraintTargets, find, sideSuffix } from '@sphalerite/core/model';
import {
  CONSTRAINT_NAMES,
  KINDS_OF_CONSTRAINT,
  type NewConstraint,
  addConstraintEdit,
  bendWord,
  changeConstraintEdit,
  deleteConstraintEdit,
  setLimbAlongEdit,
  turnLimbEdit,
} from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { runCommand } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { withComponent } from '../shared/degrees';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import FormRow from '../../components/FormRow.vue';
import CheckField from '../../components/CheckField.vue';
import SelectField from '../../components/SelectField.vue';
import { choices, records } from '../../components/choices';

/** What steers the bone in hand, and what the bone steers. */
const props = defineProps<{ bone: Bone }>();
const session = useSession();
const notices = useNotices();
const AXES = ['X', 'Y', 'Z'] as const;
const rig = computed(() => session.project!.rig);
const mine = computed(() => rig.value.constraints.filter((c) => c.bone === props.bone.id));
const steers = computed(() => rig.value.constraints.filter((c) => constraintTargets(c).includes(props.bone.id)));
const nameOf = (b: Bone): string => b.name + sideSuffix(b.side);
const nameById = (id: string | null): string => {
  const b = find(rig.value.bones, id);
  return b ? nameOf(b) : '–';
};
const others = computed(() => rig.value.bones.filter((b) => b.id !== props.bone.id));
const kind = ref<Constraint['kind']>('look');
const target = ref('');
const needsTarget = computed(() => ['ik', 'match', 'look'].includes(kind.value));
const change = (c: Constraint, more: object): void => {
  session.apply(changeConstraintEdit, { constraint: { ...c, ...more } as Constraint });
};
const goesAlong = (goal: string): boolean => (find(rig.value.bones, goal)?.parent ?? null) !== null;
const isLimb = computed(
  () => !mine.value.some((c) => c.kind === 'ik') && chainOf(rig.value, { bone: props.bone.id, links: 2 }).length >= 2,
);
function add(): void {
  const base = { bone: props.bone.id, on: true, amount: 1 };
  const made: Record<Constraint['kind'], () => NewConstraint> = {
    ik: () => ({
      ...base,
      kind: 'ik',
      goal: target.value,
      pole: null,
      links: Math.min(2, chainOf(rig.value, { bone: props.bone.id, links: 2 }).length - 1) || 1,
      bend: [0, 0, 1],
      hold: true,
    }),
    match: () => ({ ...base, kind: 'match', target: target.value, axes: [true, true, true] }),
    look: () => ({ ...base, kind: 'look', target: target.value, axis: [0, 0, 1] }),
    upright: () => ({ ...base, kind: 'upright' }),
    limit: () => ({ ...base, kind: 'limit', min: [-45, -45, -45], max: [45, 45, 45] }),
  };
  if (session.apply(addConstraintEdit, { constraint: made[kind.value]() })) target.value = '';
}
</script>

<template>
  <section class="panel-section" aria-label="Steering">
    <div class="panel-head">
      <h2>Steered by</h2>
      <span class="quiet figures">{{ mine.length }}</span>
    </div>
    <action-button
      v-if="isLimb"
      tip="A goal here, a bend control before the joint above, and IK through both"
      keys="I"
      @click="runCommand('rig.limb').catch(notices.fail)"
    >
      Make a limb to here
    </action-button>
    <div v-for="c in mine" :key="c.id" class="one" :class="{ off: !c.on }">
      <div class="head">
        <check-field :model-value="c.on" @change="change(c, { on: !c.on })">{{
          CONSTRAINT_NAMES[c.kind]
        }}</check-field><NumberField
          label="by"
          :name="`Amount of ${CONSTRAINT_NAMES[c.kind]}`"
          :model-value="Math.round(c.amount * 100)"
          :min="0"
          :max="100"
          :step="5"
          unit="%"
          @change="(v) => change(c, { amount: v / 100 })"
        /><icon-button
          :icon="IconX"
          class="small"
          :label="`Delete ${CONSTRAINT_NAMES[c.kind]}`"
          @click="session.apply(deleteConstraintEdit, { constraint: c.id })"
        />
      </div>
      <template v-if="c.kind === 'ik'">
        <form-row label="Goal"
          ><SelectField
            label="Goal of the limb"
            :model-value="c.goal"
            @change="change(c, { goal: $event })"
            :choices="records(others, (b) => nameOf(b))"
        /></form-row>
        <form-row label="Bends to"
          ><SelectField
            label="Bends to"
            :model-value="c.pole ?? ''"
            @change="change(c, { pole: $event || null })"
            :choices="[{ value: '', text: 'as it is bent' }, ...records(others, (b) => nameOf(b))]"
        /></form-row>
        <div class="row">
          <NumberField
            label="bones"
            name="Bones that bend"
            :model-value="c.links"
            :min="1"
            :max="16"
            @change="(v) => change(c, { links: Math.round(v) })"
          /><check-field
            tip="The end keeps the turn of its goal"
            :model-value="c.hold"
            @change="change(c, { hold: !c.hold })"
            >end keeps its turn</check-field
          >
        </div>
        <check-field
          tip="Its goal hangs on the topmost bone, and goes where the body goes; else it stays where it stands"
          :model-value="goesAlong(c.goal)"
          @change="session.apply(setLimbAlongEdit, { constraint: c.id, along: !goesAlong(c.goal) })"
          >goal goes along with the body</check-field
        >
        <p class="quiet">
          It bends {{ bendWord(c.bend) }}.
          <action-button look="link" @click="session.apply(turnLimbEdit, { constraint: c.id })">
            Bend the other way
          </action-button>
        </p>
      </template>
      <form-row v-if="c.kind === 'match' || c.kind === 'look'" :label="c.kind === 'look' ? 'Looks at' : 'Of'"
        ><SelectField
          :label="`What it ${c.kind === 'look' ? 'looks at' : 'matches'}`"
          :model-value="c.target"
          @change="change(c, { target: $event })"
          :choices="records(others, (b) => nameOf(b))"
      /></form-row>
      <div v-if="c.kind === 'match'" class="row">
        <check-field
          v-for="(a, i) in AXES"
          :key="a"
          :model-value="c.axes[i] ?? false"
          @change="change(c, { axes: c.axes.map((on, k) => (k === i ? !on : on)) })"
          >{{ a }}</check-field
        >
      </div>
      <template v-if="c.kind === 'limit'"
        ><div v-for="(a, i) in AXES" :key="a" class="row">
          <NumberField
            :axis="a.toLowerCase() as 'x'"
            :label="a"
            :name="`Lowest ${a}`"
            :model-value="c.min[i]!"
            :step="5"
            unit="°"
            @change="(v) => change(c, { min: withComponent(c.min as Vec3, i, v) })"
          /><NumberField
            label="to"
            :name="`Highest ${a}`"
            :model-value="c.max[i]!"
            :step="5"
            unit="°"
            @change="(v) => change(c, { max: withComponent(c.max as Vec3, i, v) })"
          /></div
      ></template>
    </div>
    <div class="new">
      <SelectField
        v-model="kind"
        label="New constraint"
        :choices="choices(KINDS_OF_CONSTRAINT, (k) => CONSTRAINT_NAMES[k])"
      /><SelectField
        v-if="needsTarget"
        v-model="target"
        label="Its target"
        placeholder="target…"
        :choices="records(others, (b) => nameOf(b))"
      /><action-button :disabled="needsTarget && !target" @click="add">Add</action-button>
    </div>
    <p v-for="c in steers" :key="c.id" class="quiet">Steers {{ nameById(c.bone) }} ({{ CONSTRAINT_NAMES[c.kind] }})</p>
  </section>
</template>

<style scoped>
.one {
  display: grid;
  gap: 5px;
  padding: 7px 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
}
.one.off {
  opacity: 0.62;
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 84px 20px;
  gap: 4px;
  align-items: center;
  font-weight: 500;
}
.new {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 5px;
}
.row :deep(.number-field) {
  flex: 0 0 88px;
}
p {
  font-size: 12px;
}
</style>
