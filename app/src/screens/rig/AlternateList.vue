<script setup lang="ts">
import { type Transform, withAxis } from '@sphalerite/core/math';
import { type Bone, type Mount, type Part, looseParts, sideSuffix } from '@sphalerite/core/model';
import {
  leaveAlternateSetEdit,
  makeAlternateSetEdit,
  mountPartEdit,
  mountPartsEdit,
  renameAlternateSetEdit,
  setMountEdit,
  shrinkSlightlyEdit,
  tryPartEdit,
  wearEdit,
  wearEverywhereEdit,
} from '@sphalerite/core/project';
import { computed } from 'vue';
import PartPicture from '../../components/PartPicture.vue';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { useWayBack } from '../../stores/way-back';
import { runCommand } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { useAnimate } from '../animate/animate-state';
import ActionButton from '../../components/ActionButton.vue';
import RadioField from '../../components/RadioField.vue';
import FoldSection from '../../components/FoldSection.vue';
import FormRow from '../../components/FormRow.vue';
import ScaleField from '../../components/ScaleField.vue';
import VectorField from '../../components/VectorField.vue';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';
import SelectField from '../../components/SelectField.vue';
import TextField from '../../components/TextField.vue';
import { type DropTarget, vDrop } from '../../components/drag';
import { type Choice, records } from '../../components/choices';

/** What is mounted on the bone: parts that are always there, and sets of alternates that wear one of several. A part dropped on one is tried instead. */
const props = defineProps<{ bone: Bone; flicker: ReadonlyMap<string, string> }>();
const session = useSession();
const view = useView();
const way = useWayBack();
const notices = useNotices();
const rows = computed(() => {
  const p = session.project!;
  const mine = p.rig.mounts
    .filter((m) => m.bone === props.bone.id)
    .flatMap((mount): { mount: Mount; part: Part }[] =>
      p.parts.filter((x) => x.id === mount.part).map((part) => ({ mount, part })),
    );
  return {
    always: mine.filter((r) => r.mount.alternateSet === null),
    alternateSets: p.rig.alternateSets
      .map((alternateSet) => ({ alternateSet, mine: mine.filter((r) => r.mount.alternateSet === alternateSet.id) }))
      .filter((s) => s.mine.length > 0),
    count: mine.length,
  };
});
/** Parts that could be tried: those on no bone. */
const loose = computed(() => looseParts(session.project!));
const tryIt = (part: string, instead: string): unknown => session.apply(tryPartEdit, { part, instead });
const place = (mount: Mount, to: Partial<Transform>): unknown =>
  session.apply(setMountEdit, { mount: mount.id, place: to });
const target = (instead: string): DropTarget => ({
  accepts: (what) => what.kind === 'part',
  drop: (what) => tryIt(what.ids[0]!, instead),
});
const nameOf = (p: Part): string => p.name + sideSuffix(p.side);
const tries = computed(() => records(loose.value, nameOf));
/** Instead of a part that is always there also the others on its bone can be tried: a copy that lies inside it, say. */
const triesFor = (r: { part: Part }): Choice<string>[] => [
  ...records(
    rows.value.always.map((o) => o.part).filter((p) => p.id !== r.part.id),
    nameOf,
  ),
  ...tries.value,
];
/** Worn everywhere, and looked at in one clip after another. */
async function wearAndPlay(alternateSet: string, mount: string): Promise<void> {
  session.apply(wearEverywhereEdit, { alternateSet, mount });
  await runCommand('go.animate').catch(notices.fail);
  await useAnimate().playAll(session.project!.clips.map((c) => c.id));
}
const scaled = (r: { mount: Mount }): boolean => r.mount.s[0] !== 1;
const onSeveral = (part: string): boolean =>
  session.project!.rig.mounts.filter((m) => m.part === part && m.bone !== null).length > 1;
</script>

<template>
  <section class="panel-section" aria-label="Mounted">
    <div class="panel-head">
      <h2>Mounted</h2>
      <span class="quiet figures">{{ rows.count }}</span>
    </div>
    <div v-for="r in rows.always" :key="r.mount.id" class="mounted" v-drop="target(r.mount.id)">
      <action-button look="bare" class="look" :aria-label="`Open ${r.part.name} in Build`" @click="way.open(r.part.id)"
        ><PartPicture :project="session.project!" :part="r.part" /></action-button
      ><span>{{ r.part.name }}</span
      ><action-button @click="session.apply(mountPartEdit, { part: r.part.id, bone: null })"> Unmount </action-button>
      <action-button
        v-if="onSeveral(r.part.id)"
        class="only"
        @click="session.apply(mountPartsEdit, { pairs: [{ part: r.part.id, bone: bone.id }] })"
      >
        Only on this bone
      </action-button>
      <p v-if="flicker.get(r.part.id) && !scaled(r)" class="quiet only">
        {{ flicker.get(r.part.id) }}
        <action-button look="link" @click="session.apply(shrinkSlightlyEdit, { part: r.part.id, by: 0.98 })">
          Shrink slightly
        </action-button>
      </p>
      <p v-else-if="scaled(r)" class="quiet only">
        Scaled a little.
        <action-button look="link" @click="session.apply(shrinkSlightlyEdit, { part: r.part.id, by: 1 })">
          Full size
        </action-button>
      </p>
      <div class="only">
        <fold-section id="mount-place" title="Place on the bone">
          <form-row label="move" stacked
            ><vector-field
              name="Mount at"
              :model-value="r.mount.t"
              :step="0.5"
              @change="(a, v) => place(r.mount, { t: withAxis(r.mount.t, a, v) })"
          /></form-row>
          <form-row label="turn" stacked
            ><vector-field
              name="Mount turn"
              :model-value="toDegrees(r.mount.q)"
              :step="15"
              unit="°"
              @change="(a, v) => place(r.mount, { q: fromDegrees(withComponent(toDegrees(r.mount.q), a, v)) })"
          /></form-row>
          <form-row label="scale" stacked
            ><scale-field
              v-model:apart="view.apart"
              name="Mount scale"
              :model-value="r.mount.s"
              @change="(to) => place(r.mount, { s: to(r.mount.s) })"
          /></form-row>
        </fold-section>
      </div>
      <p class="only acts">
        <SelectField
          v-if="triesFor(r).length > 0"
          :label="`Try instead of ${r.part.name}`"
          :model-value="undefined"
          placeholder="try instead…"
          :choices="triesFor(r)"
          @change="(part) => tryIt(part, r.mount.id)"
        />
        <action-button
          look="link"
          tip="Alternates of its own, so that clips can show and hide it"
          @click="session.apply(makeAlternateSetEdit, { mount: r.mount.id })"
        >
          may come and go
        </action-button>
      </p>
    </div>
    <div
      v-for="s in rows.alternateSets"
      :key="s.alternateSet.id"
      class="set"
      role="radiogroup"
      :aria-label="`Alternates ${s.alternateSet.name}`"
    >
      <div class="head">
        <text-field
          :model-value="s.alternateSet.name"
          label="Name of the alternates"
          @change="(name) => session.apply(renameAlternateSetEdit, { alternateSet: s.alternateSet.id, name })"
        /><span class="quiet">wears one</span>
      </div>
      <div
        v-for="r in s.mine"
        :key="r.mount.id"
        class="mounted worn"
        v-drop="target(r.mount.id)"
        :class="{ on: s.alternateSet.worn === r.mount.id }"
      >
        <action-button
          look="bare"
          class="look"
          :aria-label="`Open ${r.part.name} in Build`"
          @click="way.open(r.part.id)"
          ><PartPicture :project="session.project!" :part="r.part"
        /></action-button>
        <radio-field
          :model-value="s.alternateSet.worn"
          :value="r.mount.id"
          @change="session.apply(wearEdit, { alternateSet: s.alternateSet.id, mount: r.mount.id })"
          >{{ r.part.name }}</radio-field
        >
        <action-button
          v-if="session.project!.clips.length > 0"
          look="link"
          :aria-label="`Wear ${r.part.name} in every clip`"
          tip="At rest and in every clip, then plays them"
          @click="wearAndPlay(s.alternateSet.id, r.mount.id)"
        >
          every clip
        </action-button>
        <action-button
          look="link"
          :aria-label="`${r.part.name} is always there`"
          tip="Out of the alternates"
          @click="session.apply(leaveAlternateSetEdit, { mount: r.mount.id })"
        >
          always
        </action-button>
      </div>
      <p class="acts">
        <radio-field
          :model-value="s.alternateSet.worn"
          :value="null"
          @change="session.apply(wearEdit, { alternateSet: s.alternateSet.id, mount: null })"
          >none</radio-field
        >
        <SelectField
          v-if="loose.length > 0"
          :label="`Try in ${s.alternateSet.name}`"
          :model-value="undefined"
          placeholder="try another…"
          :choices="tries"
          @change="(part) => tryIt(part, s.mine[0]!.mount.id)"
        />
      </p>
    </div>
    <p v-if="rows.count === 0" class="quiet">Nothing is mounted here; it steers what hangs below.</p>
  </section>
</template>

<style scoped>
.only {
  grid-column: 2 / 4;
}
.mounted {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr) auto;
  gap: 4px 8px;
  align-items: center;
  border-radius: var(--radius);
}
.set {
  display: grid;
  gap: 5px;
  padding: 6px 7px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
}
/* A row of alternates says more than a mounted part: its words stand below it. */
.worn {
  grid-template-columns: 40px minmax(0, 1fr) auto auto;
}
.worn.on {
  background: var(--honey-soft);
}
.look.el-button {
  height: auto;
  padding: 0;
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 12px;
}
</style>
