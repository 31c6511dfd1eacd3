<script setup lang="ts">
import { type Id, type Project, sideSuffix } from '@sphalerite/core/model';
import { type BringAt, bringRigEdit, partsOfSameName, replacePartsEdit } from '@sphalerite/core/project';
import { computed, ref, shallowRef } from 'vue';
import PartPicture from '../../components/PartPicture.vue';
import { useSession } from '../../stores/session';
import ProjectSources from '../shared/ProjectSources.vue';
import { useRig } from './rig-state';
import ActionButton from '../../components/ActionButton.vue';
import FormRow from '../../components/FormRow.vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import SelectField from '../../components/SelectField.vue';
import { group } from '../../components/choices';
import DialogBox from '../../components/DialogBox.vue';
import { counted, say } from '../../words';

/** Brings the bones of another project in with a choice of its parts and clips, or its parts in place of those of the same name. */
const session = useSession();
const rig = useRig();
const open = ref(true);
const source = shallowRef<Project | null>(null);
const how = ref<'bones' | 'parts'>('bones');
const at = ref(session.bone ? `bone ${session.bone.id}` : '');
const parts = ref<Id[]>([]);
const clips = ref<Id[]>([]);
const pairs = computed(() => (source.value && session.project ? partsOfSameName(session.project, source.value) : []));
const swapped = ref<Id[]>([]);
function take(p: Project): void {
  source.value = p;
  parts.value = p.parts.map((o) => o.id);
  clips.value = [];
  swapped.value = pairs.value.map((o) => o.part.id);
  how.value =
    p.rig.bones.length === 0 || (pairs.value.length > 2 && pairs.value.length === p.parts.length) ? 'parts' : 'bones';
}
const place = computed<BringAt>(() => {
  const [kind, id] = at.value.split(' ') as [string, string];
  return kind === 'bone' ? { bone: id } : kind === 'point' ? { attachment: id } : null;
});
function bring(): void {
  const s = source.value!;
  const done =
    how.value === 'bones'
      ? session.apply(
          bringRigEdit,
          { source: s, at: place.value, parts: [...parts.value], clips: [...clips.value] },
          (p) => ({ bone: p.rig.bones[session.project!.rig.bones.length]?.id ?? null }),
        )
      : session.apply(replacePartsEdit, {
          source: s,
          pairs: pairs.value
            .filter((o) => swapped.value.includes(o.part.id))
            .map((o) => ({ part: o.part.id, by: o.by.id })),
        });
  if (done) open.value = false;
}
</script>

<template>
  <dialog-box v-model="open" title="Bring in a rig or its parts" width="620px" @closed="rig.dialog = null">
    <div class="bring">
      <ProjectSources @take="take" />
      <template v-if="source">
        <choice-field
          label="What"
          v-model="how"
          :choices="[
            {
              value: 'bones',
              text: say('bringIn.itsBones', { n: source.rig.bones.length }),
              disabled: source.rig.bones.length === 0,
            },
            { value: 'parts', text: 'Parts in place of those of the same name' },
          ]"
        />
        <template v-if="how === 'bones'">
          <form-row label="Hang it"
            ><SelectField
              v-model="at"
              label="Where it hangs"
              :choices="[
                { value: '', text: 'on nothing' },
                ...group(
                  'on a bone',
                  session.project!.rig.bones.map((b) => ({ value: `bone ${b.id}`, text: b.name + sideSuffix(b.side) })),
                ),
                ...group(
                  'at an attachment point',
                  session.project!.rig.attachments.map((t) => ({
                    value: `point ${t.id}`,
                    text: t.name + sideSuffix(t.side),
                  })),
                ),
              ]"
          /></form-row>
          <div class="two">
            <fieldset>
              <legend>
                Parts
                <action-button look="link" @click="parts = parts.length === 0 ? source.parts.map((o) => o.id) : []">
                  {{ parts.length === 0 ? 'all' : 'none' }}
                </action-button>
              </legend>
              <check-field v-for="p in source.parts" :key="p.id" class="line" v-model="parts" :value="p.id"
                ><span>{{ p.name + sideSuffix(p.side) }}</span></check-field
              >
            </fieldset>
            <fieldset>
              <legend>Clips</legend>
              <check-field v-for="c in source.clips" :key="c.id" class="line" v-model="clips" :value="c.id"
                ><span>{{ c.name }}</span></check-field
              >
              <p v-if="source.clips.length === 0" class="quiet">It has none.</p>
            </fieldset>
          </div>
        </template>
        <fieldset v-else>
          <legend>Parts of the same name and side</legend>
          <div class="pairs">
            <check-field v-for="o in pairs" :key="o.part.id" class="pair" v-model="swapped" :value="o.part.id"
              ><PartPicture :project="session.project!" :part="o.part" /><span aria-hidden="true">→</span
              ><PartPicture :project="source" :part="o.by" /><span>{{
                o.part.name + sideSuffix(o.part.side)
              }}</span></check-field
            >
          </div>
          <p v-if="pairs.length === 0" class="quiet">No part of “{{ source.name }}” bears the name of one here.</p>
          <p v-else class="quiet">They keep bone, alternates and keys; what was there goes to the bin.</p>
        </fieldset>
        <action-button look="primary" :disabled="how === 'parts' && swapped.length === 0" @click="bring">
          {{
            how === 'bones'
              ? say('bringIn.bring', {
                  bones: counted(source.rig.bones.length, 'bones'),
                  parts: counted(parts.length, 'parts'),
                  clips: counted(clips.length, 'clips'),
                })
              : say('bringIn.replace', { n: swapped.length })
          }}
        </action-button>
      </template>
    </div>
  </dialog-box>
</template>

<style scoped>
.bring {
  display: grid;
  gap: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1.4fr 1fr;
  gap: 14px;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
legend {
  padding: 0 0 4px;
  color: var(--quiet);
}
.two fieldset {
  max-height: 230px;
  overflow-y: auto;
}
.two fieldset:first-child {
  columns: 2;
  column-gap: 12px;
}
.pairs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  max-height: 260px;
  overflow-y: auto;
}
.pair :deep(.el-checkbox__label) {
  display: grid;
  grid-template-columns: 40px auto 40px minmax(0, 1fr);
  gap: 7px;
  align-items: center;
}
</style>
