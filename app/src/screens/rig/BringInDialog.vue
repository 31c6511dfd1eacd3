<script setup lang="ts">
import { type Id, type Project, sideSuffix } from '@sphalerite/core/model';
import { type BringAt, bringRigEdit, partsOfSameName, replacePartsEdit } from '@sphalerite/core/project';
import { ElDialog } from 'element-plus';
import { computed, ref, shallowRef } from 'vue';
import PartPicture from '../../components/PartPicture.vue';
import { useSession } from '../../stores/session';
import ProjectSources from '../shared/ProjectSources.vue';
import { useRig } from './rig-state';

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
  <el-dialog v-model="open" title="Bring in a rig or its parts" width="620px" align-center @closed="rig.dialog = null">
    <div class="bring">
      <ProjectSources @take="take" />
      <template v-if="source">
        <div class="segments" role="group" aria-label="What">
          <button
            type="button"
            :aria-pressed="how === 'bones'"
            :disabled="source.rig.bones.length === 0"
            @click="how = 'bones'"
          >
            Its {{ source.rig.bones.length }} bones</button
          ><button type="button" :aria-pressed="how === 'parts'" @click="how = 'parts'">
            Parts in place of those of the same name
          </button>
        </div>
        <template v-if="how === 'bones'">
          <label class="at"
            >Hang it
            <select v-model="at" class="pick" aria-label="Where it hangs">
              <option value="">on nothing</option>
              <optgroup label="on a bone">
                <option v-for="b in session.project!.rig.bones" :key="b.id" :value="`bone ${b.id}`">
                  {{ b.name + sideSuffix(b.side) }}
                </option>
              </optgroup>
              <optgroup v-if="session.project!.rig.attachments.length > 0" label="at an attachment point">
                <option v-for="t in session.project!.rig.attachments" :key="t.id" :value="`point ${t.id}`">
                  {{ t.name + sideSuffix(t.side) }}
                </option>
              </optgroup>
            </select>
          </label>
          <div class="two">
            <fieldset>
              <legend>
                Parts
                <button
                  type="button"
                  class="link"
                  @click="parts = parts.length === 0 ? source.parts.map((o) => o.id) : []"
                >
                  {{ parts.length === 0 ? 'all' : 'none' }}
                </button>
              </legend>
              <label v-for="p in source.parts" :key="p.id" class="line"
                ><input v-model="parts" type="checkbox" :value="p.id" /><span>{{
                  p.name + sideSuffix(p.side)
                }}</span></label
              >
            </fieldset>
            <fieldset>
              <legend>Clips</legend>
              <label v-for="c in source.clips" :key="c.id" class="line"
                ><input v-model="clips" type="checkbox" :value="c.id" /><span>{{ c.name }}</span></label
              >
              <p v-if="source.clips.length === 0" class="quiet">It has none.</p>
            </fieldset>
          </div>
        </template>
        <fieldset v-else>
          <legend>Parts of the same name and side</legend>
          <div class="pairs">
            <label v-for="o in pairs" :key="o.part.id" class="pair"
              ><input v-model="swapped" type="checkbox" :value="o.part.id" /><PartPicture
                :project="session.project!"
                :part="o.part"
              /><span aria-hidden="true">→</span><PartPicture :project="source" :part="o.by" /><span>{{
                o.part.name + sideSuffix(o.part.side)
              }}</span></label
            >
          </div>
          <p v-if="pairs.length === 0" class="quiet">No part of “{{ source.name }}” bears the name of one here.</p>
          <p v-else class="quiet">They keep bone, alternates and keys; what was there goes to the bin.</p>
        </fieldset>
        <button type="button" class="btn primary" :disabled="how === 'parts' && swapped.length === 0" @click="bring">
          {{
            how === 'bones'
              ? `Bring in ${source.rig.bones.length} bones, ${parts.length} parts, ${clips.length} clips`
              : `Replace ${swapped.length} parts`
          }}
        </button>
      </template>
    </div>
  </el-dialog>
</template>

<style scoped>
.bring {
  display: grid;
  gap: 12px;
}
.at {
  display: flex;
  gap: 8px;
  align-items: center;
}
.pick {
  flex: 1;
  height: 28px;
  padding: 0 6px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--raised);
  color: var(--ink);
  font: inherit;
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
.line {
  display: flex;
  gap: 7px;
  align-items: center;
  line-height: 23px;
}
.line input,
.pair input {
  accent-color: var(--resin);
  margin: 0;
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
.pair {
  display: grid;
  grid-template-columns: auto 40px auto 40px minmax(0, 1fr);
  gap: 7px;
  align-items: center;
}
.link {
  color: var(--resin);
  text-decoration: underline;
}
</style>
