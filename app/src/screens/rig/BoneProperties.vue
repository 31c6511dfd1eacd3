<script setup lang="ts">
import { IconAnchor, IconRotate2 } from '@tabler/icons-vue';
import { type Vec3, sub } from '@sphalerite/core/math';
import { type Part, composite, sideSuffix } from '@sphalerite/core/model';
import {
  branchOf,
  coplanarFaces,
  hangAtEdit,
  markBoneEdit,
  moveJointEdit,
  renameBoneEdit,
  setRestEdit,
} from '@sphalerite/core/project';
import { clipsTouching } from '@sphalerite/core/motion';
import { REST_POSE, restWorld } from '@sphalerite/core/rig';
import { computed } from 'vue';
import NameField from '../../components/NameField.vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';
import AttachmentList from './AttachmentList.vue';
import ConstraintList from './ConstraintList.vue';
import AlternateList from './AlternateList.vue';
import { runCommand } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';
import { shifted } from '../shared/pose-shift';
import { useRig } from './rig-state';

const session = useSession();
const rig = useRig();
const notices = useNotices();
const AXES = ['x', 'y', 'z'] as const;
const bone = computed(() => session.bone);
const joint = computed<Vec3>(() =>
  bone.value && session.shown ? restWorld(session.shown.rig).get(bone.value.id)!.t : [0, 0, 0],
);
const shownBone = computed(() => session.shown?.rig.bones.find((b) => b.id === bone.value?.id) ?? bone.value);
const degrees = computed<Vec3>(() => (shownBone.value ? toDegrees(shownBone.value.rest.q) : [0, 0, 0]));
const mounted = computed(() => {
  const p = session.project;
  return p
    ? p.rig.mounts.filter((m) => m.bone === bone.value?.id).flatMap((m) => p.parts.filter((x) => x.id === m.part))
    : [];
});
const turn = (axis: number, v: number): unknown =>
  session.apply(setRestEdit, {
    bone: bone.value!.id,
    rest: { q: fromDegrees(withComponent(degrees.value, axis, v)) },
    alone: rig.alone,
    keepLook: rig.keepLook,
  });
const move = (axis: number, v: number): unknown => {
  const id = bone.value!.id,
    delta = sub(withComponent(joint.value, axis, rig.step > 0 ? Math.round(v / rig.step) * rig.step : v), joint.value);
  return rig.carry
    ? session.apply(setRestEdit, {
        bone: id,
        rest: { t: shifted(session.project!, REST_POSE, id, delta).t },
        keepLook: rig.keepLook,
      })
    : session.apply(moveJointEdit, { bone: id, delta });
};
const clips = computed(() =>
  session.project && bone.value ? clipsTouching(session.project.clips, branchOf(session.project, bone.value.id)) : [],
);
/** Faces that lie in those of another part, for parts small enough to look at while one works. */
const flicker = computed(
  () =>
    new Map(
      mounted.value.map((part: Part): [string, string] => {
        if (composite(part).count > 50_000) return [part.id, ''];
        const [most] = coplanarFaces(session.project!, part.id);
        return [
          part.id,
          most
            ? `${most.faces === 1 ? '1 face lies in that' : `${most.faces.toLocaleString('en')} faces lie in those`} of ${most.other.name}${sideSuffix(most.other.side)}.`
            : '',
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
function hang(e: Event): void {
  const attachment = (e.target as HTMLSelectElement).value;
  (e.target as HTMLSelectElement).value = '';
  if (attachment) session.apply(hangAtEdit, { bone: bone.value!.id, attachment });
}
/** Colours that lanes can take; the first is that of the side. */
const LANES = [null, '#c98a16', '#b4532a', '#a63d57', '#7d5a98', '#44639c', '#2a7a70', '#5d7f2b', '#6f665c'] as const;
function play(clip: string): void {
  session.choose({ clip });
  void runCommand('go.animate').catch(notices.fail);
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
          @rename="(name) => session.apply(renameBoneEdit, { bone: bone!.id, name })"
        /><span v-if="bone.side !== 'centre'" class="tag">{{ bone.side }}</span
        ><span class="quiet">bone</span>
      </div>
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h2>Turn</h2>
        <button
          type="button"
          class="bare"
          aria-label="Reset the turn"
          title="Reset the turn · Shift+R"
          @click="session.apply(setRestEdit, { bone: bone!.id, rest: { q: [0, 0, 0, 1] } })"
        >
          <IconRotate2 aria-hidden="true" />
        </button>
      </div>
      <div class="row">
        <NumberField
          v-for="(a, i) in AXES"
          :key="a"
          :axis="a"
          :label="a.toUpperCase()"
          :name="`Turn ${a.toUpperCase()}`"
          :model-value="degrees[i]!"
          :step="5"
          unit="°"
          @change="(v) => turn(i, v)"
        />
      </div>
      <label class="check"><input v-model="rig.alone" type="checkbox" />alone: what hangs on it stays</label>
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h2>Joint</h2>
        <span class="quiet">{{ rig.step === 0 ? 'any length' : rig.step === 1 ? 'cubes' : 'half cubes' }}</span>
      </div>
      <div class="row">
        <NumberField
          v-for="(a, i) in AXES"
          :key="a"
          :axis="a"
          :label="a.toUpperCase()"
          :name="`Joint ${a.toUpperCase()}`"
          :model-value="joint[i]!"
          :step="rig.step || 0.1"
          @change="(v) => move(i, v)"
        />
      </div>
      <label class="check"><input v-model="rig.carry" type="checkbox" />carry parts and bones along</label>
      <p v-if="!rig.carry" class="quiet keep">
        <IconAnchor aria-hidden="true" />Parts and bones below keep their place.
      </p>
    </section>
    <AlternateList :bone="bone" :flicker="flicker" />
    <ConstraintList :bone="bone" />
    <AttachmentList :bone="bone" />
    <section class="panel-section" aria-label="In lists and files">
      <div class="lane" role="radiogroup" aria-label="Colour of its lane">
        <button
          v-for="c in LANES"
          :key="c ?? 'side'"
          type="button"
          role="radio"
          :aria-checked="bone.colour === c"
          :aria-label="c ?? 'That of its side'"
          :style="{ background: c ?? 'none' }"
          @click="session.apply(markBoneEdit, { bone: bone!.id, colour: c })"
        >
          {{ c ? '' : '–' }}</button><span class="quiet">lane</span>
      </div>
      <label v-if="points.length > 0" class="row"
        ><select class="pick" aria-label="Hang at an attachment point" @change="hang">
          <option value="">hang at…</option>
          <option v-for="t in points" :key="t.id" :value="t.id">{{ t.name + sideSuffix(t.side) }}</option>
        </select></label
      >
      <label v-if="!carries" class="check"
        ><input
          type="checkbox"
          :checked="bone.ships"
          @change="session.apply(markBoneEdit, { bone: bone!.id, ships: ($event.target as HTMLInputElement).checked })"
        />goes into files</label
      >
    </section>
    <section v-if="clips.length > 0" class="panel-section" aria-label="Clips it moves in">
      <div class="panel-head">
        <h2>Moves in</h2>
        <span class="quiet figures">{{ clips.length }}</span>
      </div>
      <p class="clips">
        <button
          v-for="c in clips"
          :key="c.id"
          type="button"
          class="link"
          title="Show it in Animate"
          @click="play(c.id)"
        >
          {{ c.name }}
        </button>
      </p>
      <label class="check" title="Else keys keep their numbers, which are offsets from rest"
        ><input v-model="rig.keepLook" type="checkbox" />when the rest changes, clips keep their look</label
      >
    </section>
  </div>
  <p v-else class="none quiet">Click a joint in the view, or a bone on the left.</p>
</template>

<style scoped>
.none {
  padding: 16px;
}
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
.check {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.check input {
  accent-color: var(--resin);
  margin: 0;
}
.clips {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  font-size: 12px;
}
.link {
  color: var(--resin);
  text-decoration: underline;
}
.lane {
  display: flex;
  gap: 5px;
  align-items: center;
}
.lane button {
  width: 17px;
  height: 17px;
  border-radius: 50%;
  border: 1px solid rgb(0 0 0 / 25%);
  font-size: 10px;
  line-height: 15px;
  color: var(--quiet);
}
.lane button[aria-checked='true'] {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
}
.pick {
  flex: 1;
  min-width: 0;
  height: 26px;
  padding: 0 5px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
}
</style>
