<script setup lang="ts">
import { sideSuffix } from '@sphalerite/core/model';
import type { Piece, PieceKind } from '@sphalerite/core/project';
import { ref } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import DialogBox from '../../components/DialogBox.vue';
import FormRow from '../../components/FormRow.vue';
import SelectField from '../../components/SelectField.vue';
import { group } from '../../components/choices';
import ProjectSources from '../files/ProjectSources.vue';
import { useSession } from '../../stores/session';
import { counted, say } from '../../words';
import PieceRow from './PieceRow.vue';
import { keyOf, usePieces } from './pieces-state';

/** Takes parts, bones, clips, palettes, stamps or all of another project; what clashes is told before. */
const state = usePieces();
const session = useSession();
const shown = ref(true);
/** What was dropped is settled; else one may choose another. */
const choosing = state.source === null;
const TITLES: Readonly<Record<PieceKind, string>> = {
  part: 'Parts',
  clip: 'Clips',
  scene: 'Scenes',
  palette: 'Palettes',
  stamp: 'Stamps',
  'delivery profile': 'Deliveries',
};
const free = (list: readonly Piece[]): Piece[] => list.filter((p) => !p.clash.shared);
const all = (list: readonly Piece[]): boolean =>
  free(list).length > 0 && free(list).every((p) => state.ticked.includes(keyOf(p)));
function take(): void {
  if (state.take()) shown.value = false;
}
</script>

<template>
  <dialog-box v-model="shown" title="Take from another project" width="660px" @closed="state.close()">
    <div class="pieces">
      <project-sources v-if="choosing" @take="state.begin" />
      <template v-if="state.source">
        <div class="tree" role="group" :aria-label="`What “${state.source.name}” has`">
          <section>
            <check-field v-model="state.whole" tip="Linked copies of it can stand in scenes"
              >All of “{{ state.source.name }}”, as one asset for scenes</check-field
            >
            <check-field
              v-if="state.source.rig.bones.length > 0"
              :model-value="state.bones"
              @update:model-value="state.withBones"
              >Its {{ counted(state.source.rig.bones.length, 'bones') }}, with all that steers</check-field
            >
            <form-row v-if="state.bones" class="hang" label="Hang it"
              ><SelectField
                v-model="state.at"
                label="Where it hangs"
                :choices="[
                  { value: '', text: 'on nothing' },
                  ...group(
                    'on a bone',
                    session.project!.rig.bones.map((b) => ({
                      value: `bone ${b.id}`,
                      text: b.name + sideSuffix(b.side),
                    })),
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
          </section>
          <section v-for="g in state.groups" :key="g.kind">
            <div class="panel-head">
              <h3>{{ TITLES[g.kind] }}</h3>
              <span class="quiet figures">{{ g.list.length }}</span>
              <action-button
                v-if="g.kind === 'part' && state.namesakes.length > 1"
                look="link"
                tip="They go into the parts of the same names, whose bones are here already"
                @click="state.allInPlace"
                >{{ say('pieces.allInPlace', { n: state.namesakes.length }) }}</action-button><action-button
                look="link"
                @click="state.tick(free(g.list), !all(g.list))"
                >{{ all(g.list) ? 'none' : 'all' }}</action-button
              >
            </div>
            <ul :aria-label="TITLES[g.kind]">
              <piece-row v-for="p in g.list" :key="p.id" :piece="p" />
            </ul>
          </section>
        </div>
        <action-button look="primary" :disabled="state.sum === ''" @click="take">{{
          state.sum === '' ? 'Tick what is to come' : `Take ${state.sum}`
        }}</action-button>
      </template>
    </div>
  </dialog-box>
</template>

<style scoped>
.pieces {
  display: grid;
  gap: 12px;
}
.tree {
  max-height: 56vh;
  overflow-y: auto;
}
section + section {
  margin-top: 10px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
section > .check-field {
  display: flex;
}
.panel-head {
  gap: 12px;
}
.panel-head .figures {
  flex: 1;
}
.hang {
  margin-left: 22px;
}
ul {
  margin: 0;
  padding: 0 6px 0 0;
  list-style: none;
}
</style>
