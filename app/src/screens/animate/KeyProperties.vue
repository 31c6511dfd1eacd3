<script setup lang="ts">
import { type Clip, EASINGS, type Easing, mountsOf } from '@sphalerite/core/model';
import {
  easeKeysEdit,
  removeSwapsEdit,
  retimeEdit,
  setClipEdit,
  swapKeyEdit,
  wearEverywhereEdit,
} from '@sphalerite/core/project';
import { EVEN_CURVE, type KeyRef, framesIn, betweenFrames, nearestFrame, retimed } from '@sphalerite/core/motion';
import { type Vec3, scale as scaled } from '@sphalerite/core/math';
import { computed, ref } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import NameField from '../../components/NameField.vue';
import NumberField from '../../components/NumberField.vue';
import VectorField from '../../components/VectorField.vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';
import { useAnimate } from './animate-state';
import { useKeying } from './keying';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import SelectField from '../../components/SelectField.vue';
import { choices, records } from '../../components/choices';
import EmptyState from '../../components/EmptyState.vue';
import FormRow from '../../components/FormRow.vue';
import SliderField from '../../components/SliderField.vue';
import FoldSection from '../../components/FoldSection.vue';
import { counted, say } from '../../words';
import ScaleField from '../../components/ScaleField.vue';
import SideTag from '../../components/SideTag.vue';

const session = useSession();
const view = useView();
const notices = useNotices();
const anim = useAnimate();
const keying = useKeying();
const clip = computed(() => session.clip);
const bone = computed(() => session.bone);
const local = computed(() => (bone.value ? (anim.pose.get(bone.value.id) ?? bone.value.rest) : null));
const degrees = computed<Vec3>(() => (local.value ? toDegrees(local.value.q) : [0, 0, 0]));
/** Keys meant by the easing buttons: the chosen ones, else those of the bone at this frame. */
const here = computed<readonly KeyRef[]>(() => {
  if (anim.chosen.length > 0) return anim.chosen;
  const c = clip.value,
    b = bone.value;
  const lane = c?.lanes.find((l) => l.bone === b?.id);
  if (!c || !b || !lane) return [];
  const time = nearestFrame(c, anim.time);
  return (['move', 'turn', 'scale'] as const)
    .filter((ch) => lane[ch].some((k) => k.time === time))
    .map((channel) => ({ bone: b.id, channel, time }));
});
const ease = computed<Easing | null>(() => {
  const r = here.value[0];
  const lane = r && clip.value?.lanes.find((l) => l.bone === r.bone);
  return lane ? (lane[r.channel].find((k) => k.time === r.time)?.ease ?? null) : null;
});
const CURVES: Record<Easing, string> = {
  step: 'M8 52 H152 V12',
  linear: 'M8 52 L152 12',
  ease: 'M8 52 C70 52 90 12 152 12',
  curve: 'M8 52 C44 52 44 12 152 12',
};
const keyOf = computed(() => {
  const r = here.value[0],
    lane = r && clip.value?.lanes.find((l) => l.bone === r.bone);
  return lane ? (lane[r!.channel].find((k) => k.time === r!.time) ?? null) : null;
});
const path = computed(() => {
  if (ease.value !== 'curve') return ease.value ? CURVES[ease.value] : '';
  const [a, b, c, d] = keyOf.value?.curve ?? EVEN_CURVE,
    px = (v: number): number => 8 + v * 144,
    py = (v: number): number => 52 - v * 40;
  return `M8 52 C${px(a)} ${py(b)} ${px(c)} ${py(d)} 152 12`;
});
const percent = ref(100);
/** Whether the clip becomes as much longer when all of it is retimed. */
const withLength = ref(true);
/** Says how many keys stand between frames after a retiming that does not keep to whole ones. */
function told(c: Clip): void {
  const after = session.project?.clips.find((o) => o.id === c.id),
    n = after ? betweenFrames(after) : 0;
  if (n > 0) notices.say(say('keys.between', { n }));
}
function scale(v: number): void {
  const c = clip.value!,
    how = { about: nearestFrame(c, anim.time), by: v / 100, frames: anim.wholeFrames };
  percent.value = 100;
  if (!session.apply(retimeEdit, { clip: c.id, keys: [...anim.chosen], ...how })) return;
  anim.chosen = anim.chosen.map((k) => ({ ...k, time: retimed(c, k.time, how) }));
  told(c);
}
function retime(v: number): void {
  const c = clip.value!;
  percent.value = 100;
  const how = { about: 0, by: v / 100, frames: anim.wholeFrames, length: withLength.value };
  if (session.apply(retimeEdit, { clip: c.id, keys: null, ...how })) told(c);
  anim.chosen = [];
}
/** Sets of alternates that the clip may change: all there are. */
const alternateSets = computed(() => {
  const p = session.project;
  return p
    ? p.rig.alternateSets
        .map((alternateSet) => ({
          alternateSet,
          wears: anim.withAlternates?.rig.alternateSets.find((s) => s.id === alternateSet.id)?.worn ?? null,
          keyed:
            clip.value?.swaps
              .find((l) => l.alternateSet === alternateSet.id)
              ?.keys.some((k) => k.time === nearestFrame(clip.value!, anim.time)) ?? false,
          mounts: mountsOf(p.rig, alternateSet.id).map((m) => ({
            id: m.id,
            name: p.parts.find((o) => o.id === m.part)?.name ?? '',
          })),
        }))
        .filter((s) => s.mounts.length > 0)
    : [];
});
const swap = (alternateSet: string, mount: string | null): unknown =>
  session.apply(swapKeyEdit, { clip: clip.value!.id, alternateSet, time: nearestFrame(clip.value!, anim.time), mount });
const others = computed(
  () => session.project?.clips.filter((c) => c.id !== clip.value?.id && c.lanes.length > 0) ?? [],
);
function mix(id: string): void {
  anim.blend = id ? { clip: id, amount: anim.blend?.amount ?? 0.5 } : null;
}
const setClip = (more: Omit<Parameters<typeof setClipEdit.run>[1], 'clip'>): unknown =>
  session.apply(setClipEdit, { clip: clip.value!.id, ...more });
</script>

<template>
  <div v-if="clip">
    <section class="panel-section">
      <div class="panel-head">
        <NameField
          :name="clip.name"
          label="Name of the clip"
          :disabled="!session.writable"
          @rename="(name) => setClip({ name })"
        /><span class="quiet">clip</span>
      </div>
      <div class="row">
        <NumberField
          label="f"
          name="Frames"
          :model-value="framesIn(clip)"
          :min="1"
          @change="(v) => setClip({ frames: Math.round(v) })"
        /><NumberField
          label="fps"
          name="Frames per second"
          :model-value="clip.fps"
          :min="1"
          :max="240"
          @change="(v) => setClip({ fps: v })"
        />
      </div>
      <check-field :model-value="clip.loop" @change="setClip({ loop: $event })">Loops</check-field>
      <fold-section id="clip-retime" title="Retime the clip">
        <div class="row">
          <NumberField
            label="%"
            name="Retime the whole clip"
            :model-value="percent"
            :min="1"
            :max="10000"
            :step="5"
            @change="retime"
          /><span class="quiet">of its time, all keys</span>
        </div>
        <check-field
          v-model="anim.wholeFrames"
          tip="Keys come to stand on the nearest frames; without, some may lie between"
          >keys on whole frames</check-field
        >
        <check-field v-model="withLength">the length goes along</check-field>
      </fold-section>
      <check-field :model-value="clip.ships" @change="setClip({ ships: $event })">Goes into files</check-field>
    </section>
    <section v-if="bone" class="panel-section">
      <div class="panel-head">
        <h2>{{ bone.name }}</h2>
        <side-tag :side="bone.side" /><span class="quiet">bone</span>
      </div>
      <vector-field
        name="Turn"
        :model-value="degrees"
        :step="5"
        unit="°"
        @change="(i, v) => keying.turn(bone!.id, fromDegrees(withComponent(degrees, i, v)), true)"
      />
      <vector-field
        name="Place"
        :model-value="local!.t"
        :step="0.5"
        @change="(i, v) => keying.move(bone!.id, withComponent(local!.t, i, v), true)"
      />
      <form-row label="scale" stacked
        ><scale-field
          v-model:apart="view.apart"
          name="Scale"
          :model-value="local!.s"
          @change="(to) => keying.scale(bone!.id, to(local!.s), true)"
      /></form-row>
      <form-row
        label="spin, whole turns count"
        stacked
        data-tip="About its own axes, from its last key on or from the first frame; 3600° is ten turns"
        ><vector-field
          name="Spin"
          :model-value="scaled(anim.spinOf(bone.id), 180 / Math.PI)"
          :step="15"
          unit="°"
          @change="(i, v) => keying.spin(bone!.id, withComponent(scaled(anim.spinOf(bone!.id), 180 / Math.PI), i, v))"
      /></form-row>
      <CommandButton id="anim.key" text="Set a key here" />
    </section>
    <empty-state v-else text="Click a joint to turn it at this frame." />
    <section v-if="here.length > 0" class="panel-section">
      <div class="panel-head">
        <h2>{{ here.length === 1 ? 'Key' : counted(here.length, 'keys') }}</h2>
        <span class="quiet">to the next</span>
      </div>
      <choice-field
        label="Easing to the next key"
        wide
        :model-value="ease"
        @change="
          (e) =>
            session.apply(easeKeysEdit, {
              clip: clip!.id,
              keys: [...here],
              ease: e,
              ...(e === 'curve' ? { curve: keyOf?.curve ?? EVEN_CURVE } : {}),
            })
        "
        :choices="choices(EASINGS)"
      />
      <svg v-if="ease" viewBox="0 0 160 64" class="curve" aria-hidden="true">
        <path :d="path" />
        <circle cx="8" cy="52" r="4" />
        <circle cx="152" cy="12" r="4" />
      </svg>
      <div v-if="anim.chosen.length > 1" class="row">
        <NumberField
          label="%"
          name="Scale in time about this frame"
          :model-value="percent"
          :min="1"
          :max="10000"
          :step="5"
          @change="scale"
        /><span class="quiet">in time, about this frame</span>
      </div>
    </section>
    <section v-if="alternateSets.length > 0" class="panel-section" aria-label="Worn from here on">
      <div class="panel-head"><h2>Wears from here</h2></div>
      <div v-for="s in alternateSets" :key="s.alternateSet.id" class="set">
        <span>{{ s.alternateSet.name }}</span>
        <div class="worn">
          <choice-field
            :label="`${s.alternateSet.name} wears`"
            :model-value="s.wears ?? ''"
            :choices="[
              ...s.mounts.map((m) => ({ value: m.id, text: m.name })),
              { value: '', text: '–', name: `${s.alternateSet.name}: nothing` },
            ]"
            @change="(m) => swap(s.alternateSet.id, m || null)"
          /><action-button
            v-if="s.keyed"
            look="link"
            @click="
              session.apply(removeSwapsEdit, {
                clip: clip!.id,
                alternateSet: s.alternateSet.id,
                times: [nearestFrame(clip!, anim.time)],
              })
            "
          >
            no key here
          </action-button>
          <action-button
            look="link"
            tip="At rest and in every clip, wherever what is worn at rest would be"
            :aria-label="`${s.alternateSet.name}: in every clip`"
            @click="session.apply(wearEverywhereEdit, { alternateSet: s.alternateSet.id, mount: s.wears })"
          >
            in every clip
          </action-button>
        </div>
      </div>
    </section>
    <section v-if="others.length > 0" class="panel-section" aria-label="Mixed with">
      <form-row label="Mix in"
        ><SelectField
          label="Clip to mix in"
          :model-value="anim.blend?.clip ?? ''"
          @change="mix"
          :choices="[{ value: '', text: 'nothing' }, ...records(others, (c) => c.name)]"
      /></form-row>
      <slider-field
        v-if="anim.blend"
        :model-value="anim.blend.amount"
        label="How much of it"
        @input="(amount) => (anim.blend = { clip: anim.blend!.clip, amount })"
      />
    </section>
    <section class="panel-section walk">
      <CommandButton id="anim.mirrorHalf" text="Second half mirrored" /><CommandButton
        id="anim.resetPose"
        text="Pose at rest"
      />
    </section>
  </div>
  <empty-state v-else text="Make a clip on the left to begin." />
</template>

<style scoped>
.set {
  display: grid;
  gap: 3px;
  font-size: 12px;
}
.worn {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
}
.walk {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.curve {
  width: 100%;
  background: var(--ground);
  border-radius: var(--radius);
}
.curve path {
  fill: none;
  stroke: var(--resin);
  stroke-width: 2.5;
}
.curve circle {
  fill: var(--honey);
  stroke: var(--resin);
  stroke-width: 1.5;
}
</style>
