<script setup lang="ts">
import { IconAnchor, IconRotate2 } from '@tabler/icons-vue';
import { type Axis, type Vec3, sub } from '@sphalerite/core/math';
import { type Bone, type Part, TICKS, composite, sideSuffix } from '@sphalerite/core/model';
import {
  branchOf,
  coplanarFaces,
  each,
  hangAtEdit,
  markBoneEdit,
  moveJointEdit,
  renameBoneEdit,
  setRestEdit,
  setSideEdit,
} from '@sphalerite/core/project';
import { clipsTouching } from '@sphalerite/core/motion';
import { REST_POSE, restWorld } from '@sphalerite/core/rig';
import { watchDebounced } from '@vueuse/core';
import { computed, nextTick } from 'vue';
import NameField from '../../components/NameField.vue';
import VectorField from '../../components/VectorField.vue';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import AttachmentList from './AttachmentList.vue';
import ConstraintList from './ConstraintList.vue';
import AlternateList from './AlternateList.vue';
import { runCommand } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';
import { shifted } from '../shared/pose-shift';
import { useAnimate } from '../animate/animate-state';
import { useRig } from './rig-state';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import CardChoice from '../../components/CardChoice.vue';
import EmptyState from '../../components/EmptyState.vue';
import FoldSection from '../../components/FoldSection.vue';
import FormRow from '../../components/FormRow.vue';
import CheckField from '../../components/CheckField.vue';
import SelectField from '../../components/SelectField.vue';
import { records } from '../../components/choices';
import { commonOf } from '../../components/mixed';
import { say } from '../../words';
import { LANE_COLOURS } from '../shared/lane-colours';
import ScaleField from '../../components/ScaleField.vue';
import SideField from '../../components/SideField.vue';
import { renamed } from '../shared/renamed';
import { type ClipContact, badness, useClipContacts, worstFrame } from '../shared/clip-contacts';

const session = useSession();
const view = useView();
const rig = useRig();
const notices = useNotices();
const bone = computed(() => session.bone);
const joint = computed<Vec3>(() =>
  bone.value && session.shown ? restWorld(session.shown.rig).get(bone.value.id)!.t : [0, 0, 0],
);
const shownBone = computed(() => session.shown?.rig.bones.find((b) => b.id === bone.value?.id) ?? bone.value);
/** All that are chosen, the one in hand among them: a number that is given counts for each. */
const chosen = computed(() => session.project!.rig.bones.filter((b) => session.view.chosen.bone.includes(b.id)));
const commonSide = computed(() =>
  chosen.value.every((b) => b.side === bone.value?.side) ? (bone.value?.side ?? null) : null,
);
const degreesOf = (b: Bone): Vec3 => toDegrees((b.id === bone.value?.id ? (shownBone.value ?? b) : b).rest.q);
const jointOf = (b: Bone): Vec3 =>
  b.id === bone.value?.id ? joint.value : restWorld(session.project!.rig).get(b.id)!.t;
const mounted = computed(() => {
  const p = session.project;
  return p
    ? p.rig.mounts.filter((m) => m.bone === bone.value?.id).flatMap((m) => p.parts.filter((x) => x.id === m.part))
    : [];
});
const turn = (axis: Axis, v: number): unknown =>
  session.apply(
    each(setRestEdit),
    chosen.value.map((b) => ({
      bone: b.id,
      rest: { q: fromDegrees(withComponent(degreesOf(b), axis, v)) },
      alone: rig.alone,
      keepLook: rig.keepLook,
    })),
  );
const grow = (to: (was: Vec3) => Vec3): unknown =>
  session.apply(
    each(setRestEdit),
    chosen.value.map((b) => ({
      bone: b.id,
      rest: { s: to(b.rest.s) },
      alone: rig.alone,
      keepLook: rig.keepLook,
    })),
  );
const move = (axis: Axis, v: number): unknown => {
  const to = rig.step > 0 ? Math.round(v / rig.step) * rig.step : v;
  const moved = chosen.value.map((b) => ({ bone: b.id, delta: sub(withComponent(jointOf(b), axis, to), jointOf(b)) }));
  if (!rig.carry) return session.apply(each(moveJointEdit), moved);
  // What hangs on another that is carried comes along with it.
  const top = moved.filter(
    ({ bone: id }) => !moved.some((o) => o.bone !== id && branchOf(session.project!, o.bone).has(id)),
  );
  return session.apply(
    each(setRestEdit),
    top.map(({ bone: id, delta }) => ({
      bone: id,
      rest: { t: shifted(session.project!, REST_POSE, id, delta).t },
      keepLook: rig.keepLook,
    })),
  );
};
const contacts = useClipContacts();
const touched = computed(() =>
  session.project && bone.value
    ? clipsTouching(session.project.rig, session.project.clips, branchOf(session.project, bone.value.id))
    : [],
);
const measured = (clip: string): ClipContact | undefined => (contacts.sorted ? contacts.rows.get(clip) : undefined);
const bad = (clip: string): number => ((r) => (r ? badness(r) : -1))(measured(clip));
/** The clips that a change here touches, the worst first once they were measured. */
const clips = computed(() => [...touched.value].sort((a, b) => bad(b.id) - bad(a.id)));
watchDebounced(
  [() => contacts.sorted, touched, () => contacts.rows],
  () => {
    const open = contacts.sorted ? touched.value.filter((c) => !contacts.rows.has(c.id)) : [];
    if (!contacts.busy) void contacts.check(open.map((c) => c.id));
  },
  { debounce: 400, immediate: true },
);
/** Deepest in the ground, furthest slide and most cubes in another part, in short. */
function figures(clip: string): string {
  const r = measured(clip);
  if (!r) return '';
  const { depth, slide } = r.contact;
  return `${depth.by.toFixed(2)} · ${slide.by.toFixed(2)} · ${r.clashes[0]?.cubes ?? 0}`;
}
/** Faces that lie in those of another part, for parts small enough to look at while one works. */
const flicker = computed(
  () =>
    new Map(
      mounted.value.map((part: Part): [string, string] => {
        if (composite(part).count > 50_000) return [part.id, ''];
        const [most] = coplanarFaces(session.project!, part.id);
        return [
          part.id,
          most ? say('rig.facesMeet', { n: most.faces, other: most.other.name + sideSuffix(most.other.side) }) : '',
        ];
      }),
    ),
);
const points = computed(() =>
  (session.project?.rig.attachments ?? []).filter(
    (t) => bone.value && !branchOf(session.project!, bone.value.id).has(t.bone),
  ),
);
const carries = computed(() => mounted.value.length > 0);
/** Colours that lanes can take; the first is that of the side. */
const LANES = [{ value: '', name: 'That of its side' }, ...LANE_COLOURS.map(([name, value]) => ({ value, name }))];
/** One clip after another. */
async function playAll(ids: readonly string[]): Promise<void> {
  await runCommand('go.animate').catch(notices.fail);
  await useAnimate().playAll(ids);
}
/** At its worst moment, where that is known. */
function play(clip: string): void {
  session.choose({ clip });
  const r = measured(clip);
  void runCommand('go.animate')
    .then(() => nextTick())
    .then(() => r && useAnimate().scrub((worstFrame(r) * TICKS) / session.clip!.fps))
    .catch(notices.fail);
}
</script>

<template>
  <div v-if="bone && session.project">
    <section class="panel-section">
      <div class="panel-head">
        <NameField
          :name="bone.name"
          label="Name of the bone"
          :disabled="!session.writable"
          @rename="(name) => renamed(renameBoneEdit, { bone: bone!.id, name }, () => session.bone?.name)"
        /><span v-if="chosen.length > 1" class="quiet">and {{ chosen.length - 1 }} more</span
        ><side-field
          label="Side of the bone"
          :model-value="commonSide"
          @change="(side) => session.apply(setSideEdit, { of: 'bones', ids: chosen.map((b) => b.id), side })"
        />
      </div>
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h2>Turn</h2>
        <icon-button
          :icon="IconRotate2"
          label="Reset the turn"
          keys="Shift+R"
          @click="runCommand('rig.reset').catch(notices.fail)"
        />
      </div>
      <vector-field name="Turn" :model-value="commonOf(chosen.map(degreesOf))" :step="5" unit="°" @change="turn" />
      <check-field v-model="rig.alone">alone: what hangs on it stays</check-field>
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h2>Joint</h2>
        <span class="quiet">{{ rig.step === 0 ? 'any length' : rig.step === 1 ? 'cubes' : 'half cubes' }}</span>
      </div>
      <vector-field name="Joint" :model-value="commonOf(chosen.map(jointOf))" :step="rig.step || 0.1" @change="move" />
      <check-field v-model="rig.carry">carry parts and bones along</check-field>
      <p v-if="!rig.carry" class="quiet keep">
        <IconAnchor aria-hidden="true" />Parts and bones below keep their place.
      </p>
    </section>
    <section class="panel-section">
      <fold-section id="bone-scale" title="Scale of the bone">
        <scale-field
          v-model:apart="view.apart"
          name="Scale"
          :model-value="commonOf(chosen.map((b) => b.rest.s))"
          @change="grow"
        />
        <p class="quiet">With all that hangs on it.</p>
      </fold-section>
    </section>
    <AlternateList :bone="bone" :flicker="flicker" />
    <ConstraintList :bone="bone" />
    <AttachmentList :bone="bone" />
    <section class="panel-section">
      <fold-section id="bone-files" title="In lists and files">
        <form-row label="Lane"
          ><card-choice
            class="lanes"
            label="Colour of its lane"
            :model-value="bone.colour ?? ''"
            :choices="LANES"
            @change="(c) => session.apply(markBoneEdit, { bone: bone!.id, colour: c === '' ? null : c })"
          >
            <template #default="{ choice }"
              ><i class="lane" :style="{ background: choice.value || 'none' }" aria-hidden="true">{{
                choice.value ? '' : '–'
              }}</i></template
            >
          </card-choice></form-row
        >
        <SelectField
          v-if="points.length > 0"
          label="Hang at an attachment point"
          :model-value="undefined"
          placeholder="hang at…"
          :choices="records(points, (t) => t.name + sideSuffix(t.side))"
          @change="(attachment) => session.apply(hangAtEdit, { bone: bone!.id, attachment })"
        />
        <check-field
          v-if="!carries"
          :model-value="bone.ships"
          @change="session.apply(markBoneEdit, { bone: bone!.id, ships: $event })"
          >goes into files</check-field
        >
      </fold-section>
    </section>
    <section v-if="clips.length > 0" class="panel-section" aria-label="Clips it moves in">
      <div class="panel-head">
        <h2>Moves in</h2>
        <action-button v-if="clips.length > 1" look="link" @click="playAll(clips.map((c) => c.id))">
          play all {{ clips.length }}
        </action-button>
      </div>
      <check-field
        v-model="contacts.sorted"
        tip="Measures how deep feet go into the ground, how far they slide, and what passes through what"
        >worst contact first</check-field
      >
      <ol class="clips" :class="{ sorted: contacts.sorted }">
        <li v-for="c in clips" :key="c.id">
          <action-button look="link" tip="Show it in Animate" @click="play(c.id)">{{ c.name }}</action-button><span
            v-if="contacts.sorted"
            class="figures quiet"
            data-tip="Deepest in the ground, furthest slide, most cubes in another part"
            >{{ figures(c.id) }}</span
          >
        </li>
      </ol>
      <check-field tip="Else keys keep their numbers, which are offsets from rest" v-model="rig.keepLook"
        >when the rest changes, clips keep their look</check-field
      >
    </section>
  </div>
  <empty-state v-else text="Click a joint in the view, or a bone on the left." />
</template>

<style scoped>
.keep {
  display: flex;
  gap: 6px;
  align-items: center;
}
.keep svg {
  width: 16px;
  height: 16px;
  flex: none;
}
.clips {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 12px;
}
.clips.sorted {
  display: grid;
}
.sorted li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.lanes.card-choice {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
}
.lanes :deep(.el-radio-button__inner) {
  padding: 2px;
  border-color: transparent;
  background: none;
}
.lane {
  display: block;
  width: 15px;
  height: 15px;
  border-radius: 50%;
  border: 1px solid rgb(0 0 0 / 25%);
  font: 10px/13px var(--text);
  color: var(--quiet);
}
</style>
