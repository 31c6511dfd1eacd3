<script setup lang="ts">
import { MAX_EDGE } from '@sphalerite/core/voxel';
import { type Kind, KINDS } from '@sphalerite/core/model';
import { READY_PALETTES } from '@sphalerite/core/palette';
import { computed, onMounted, ref, shallowRef } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { type ReadyRig, listReadyRigs, removeReadyRig } from '../../storage/ready-rigs';
import { useNotices } from '../../stores/notices';
import type { NewProject } from './new-project';
import ActionButton from '../../components/ActionButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import { choices } from '../../components/choices';
import CardChoice from '../../components/CardChoice.vue';
import FormRow from '../../components/FormRow.vue';
import TextField from '../../components/TextField.vue';
import DialogBox from '../../components/DialogBox.vue';
import { counted } from '../../words';

const emit = defineEmits<{ close: []; create: [project: NewProject] }>();
const open = ref(true);
const name = ref('Untitled');
const kind = ref<Kind>('prop');
const size = ref<[number, number, number]>([16, 16, 16]);
// Terrain cubes get steps of their own and are begun there.
const kinds = KINDS.filter((k) => k !== 'terrain cube');
const palette = ref(READY_PALETTES[0]!.name);
const notices = useNotices();
const rigs = shallowRef<readonly ReadyRig[]>([]);
/** What it begins with: null for an empty volume. */
const rig = shallowRef<ReadyRig | null>(null);
const load = (): Promise<void> =>
  listReadyRigs()
    .then((list) => void (rigs.value = list))
    .catch(notices.fail);
onMounted(load);
const beginnings = computed(() => [
  { value: '', text: 'An empty volume' },
  ...rigs.value.map((r) => ({ value: r.name, text: r.name })),
]);
const about = (name: string): string => {
  const r = rigs.value.find((o) => o.name === name);
  return r ? facts(r) : 'cubes first, bones later';
};
const palettes = choices(READY_PALETTES.map((p) => p.name));
const paletteOf = (name: string) => READY_PALETTES.find((p) => p.name === name);
function begin(name_: string): void {
  const with_ = rigs.value.find((r) => r.name === name_) ?? null;
  rig.value = with_;
  if (with_) kind.value = with_.kind as Kind;
  if (with_ && /^Untitled|^New /.test(name.value)) name.value = `New ${with_.name.toLowerCase()}`;
}
async function forget(own: string): Promise<void> {
  await removeReadyRig(own);
  begin('');
  await load();
}
const facts = (r: ReadyRig): string =>
  [counted(r.bones, 'bones'), r.parts === 0 ? 'no parts' : counted(r.parts, 'parts'), r.clips.join(', ').toLowerCase()]
    .filter(Boolean)
    .join(' · ');
const form = ref<HTMLElement>();
/** Enter in the name goes on to the next field; making the project is what its button is for. */
const goOn = (): void => form.value?.querySelector<HTMLInputElement>('input[type="radio"]:checked')?.focus();
const create = (): void =>
  emit('create', {
    name: name.value,
    kind: kind.value,
    size: [size.value[0], size.value[1], size.value[2]],
    palette: palette.value,
    rig: rig.value,
  });
</script>

<template>
  <dialog-box v-model="open" title="New project" width="480px" @closed="$emit('close')">
    <form ref="form" class="new" @submit.prevent="create">
      <form-row label="Name" stacked @keydown.enter.capture.prevent
        ><text-field v-model="name" label="Name" eager @enter="goOn"
      /></form-row>
      <fieldset>
        <legend>Kind</legend>
        <choice-field label="Kind" v-model="kind" :choices="choices(kinds)" />
      </fieldset>
      <fieldset>
        <legend>Begin with</legend>
        <card-choice
          class="rigs"
          label="Begin with"
          :model-value="rig?.name ?? ''"
          :choices="beginnings"
          @change="begin"
        >
          <template #default="{ choice }"
            ><b>{{ choice.text }}</b
            ><small>{{ about(choice.value) }}</small></template
          >
        </card-choice>
        <action-button v-if="rig && 'own' in rig.from" look="link" @click="forget(rig.from.own)"
          >Forget the ready rig {{ rig.name }}</action-button
        >
      </fieldset>
      <fieldset v-if="!rig">
        <legend>First volume, in cubes (up to {{ MAX_EDGE }} along each axis; it can grow later)</legend>
        <div class="row">
          <NumberField
            v-for="(a, i) in ['x', 'y', 'z'] as const"
            :key="a"
            :axis="a"
            :label="['W', 'H', 'D'][i]!"
            :name="['Width', 'Height', 'Depth'][i]!"
            :model-value="size[i]!"
            :min="1"
            :max="MAX_EDGE"
            @change="(v) => (size[i] = Math.round(v))"
          />
        </div>
      </fieldset>
      <fieldset v-if="!rig">
        <legend>Palette</legend>
        <card-choice v-model="palette" class="palettes" label="Palette" :choices="palettes">
          <template #default="{ choice }"
            ><b>{{ choice.text }}</b
            ><small>{{ paletteOf(choice.value)?.mood }}</small
            ><span class="strip" aria-hidden="true"
              ><i
                v-for="s in paletteOf(choice.value)?.swatches"
                :key="s.byte"
                :style="{ background: s.colour }" /></span
          ></template>
        </card-choice>
      </fieldset>
      <action-button look="primary" submit>Put it on the bench</action-button>
    </form>
  </dialog-box>
</template>

<style scoped>
.new {
  display: grid;
  gap: 14px;
}
.rigs.card-choice,
.palettes.card-choice {
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  max-height: 214px;
  overflow-y: auto;
}
.rigs :deep(.el-radio-button__inner),
.palettes :deep(.el-radio-button__inner) {
  display: grid;
  align-content: start;
  gap: 1px;
  padding: 7px 9px 8px;
  text-align: left;
}
b {
  font-weight: 600;
}
small {
  color: var(--quiet);
}
.strip {
  margin-top: 4px;
  display: flex;
  height: 14px;
  border-radius: 3px;
  overflow: hidden;
  border: 1px solid rgb(0 0 0 / 20%);
}
.strip i {
  flex: 1;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
legend {
  padding: 0 0 6px;
  color: var(--quiet);
}
</style>
