<script setup lang="ts">
import { type Axis, type Vec3, sub, mapVec } from '@sphalerite/core/math';
import { EditError, type JointCells, jointOf, moveJointEdit, swungAt } from '@sphalerite/core/project';
import { type JointStudy, openPoints } from '@sphalerite/core/rig';
import type { CellSet } from '@sphalerite/core/voxel';
import { computed, defineAsyncComponent, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { useNotices } from '../../stores/notices';
import { onOtherProject } from '../../stores/project-settings';
import { useSession } from '../../stores/session';
import { JobCancelled } from '../../workers/protocol';
import { sharedPool } from '../../workers/pool';
import { tone } from '../../components/tone';
import { useSettings } from '../../stores/settings';
import { jointChart } from './joint-chart';
import { useRig } from './rig-state';
import ActionButton from '../../components/ActionButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import SliderField from '../../components/SliderField.vue';

/** How the joint in hand gapes and overlaps over its swing, for several pivots side by side, and the way to the best. */
const session = useSession();
const notices = useNotices();
const rig = useRig();
/** A colour for each pivot. */
const LINES = ['--resin', '--verdigris', '--axis-x', '--axis-z', '--axis-y', '--honey', '--quiet'];
const SUM =
  'Mean gap and mean overlap over the swing from −60° to +60°, in cubes; the best pivot is the one whose sum is least';
const ANGLES = Array.from({ length: 13 }, (_, i) => -60 + 10 * i);
const AXES = (['X', 'Y', 'Z'] as const).map((text, i) => ({ value: i as Axis, text, tip: `Swings about ${text}` }));
const axis = ref<Axis>(0);
const studies = shallowRef<readonly JointStudy[]>([]);
const joint = shallowRef<JointCells | null>(null);
const meant = ref(-1);
const busy = ref(false);
// Fetched when the first joint is studied.
const ChartView = defineAsyncComponent(() => import('../../components/chart/ChartView.vue'));
const { settings } = useSettings();
const option = computed(() => jointChart(studies.value, meant.value, (settings.theme, LINES.map(tone))));
let stop: AbortController | null = null;
/** Where the joint of each bone has been tried, to compare with: the last few, by bone. */
const tried = new Map<string, Vec3[]>();
const MOST_TRIED = 4;
/** How many of those studied were there before anything was searched. */
const compared = ref(0);
onOtherProject(() => tried.clear());
/** The joint as it is, then the places it was tried at. */
function withTried(bone: string, now: Vec3): Vec3[] {
  const before = (tried.get(bone) ?? []).filter((p) => p.some((v, i) => v !== now[i]));
  const all = [now, ...before].slice(0, 1 + MOST_TRIED);
  tried.set(bone, all);
  return all;
}

const best = computed(() =>
  studies.value.reduce((b, s, i) => (b < 0 || s.cost < studies.value[b]!.cost - 1e-6 ? i : b), -1),
);
const about = (s: JointStudy, i: number): string => {
  const d = sub(s.pivot, joint.value!.now);
  if (d.every((v) => v === 0)) return 'as it is';
  const shift = d.flatMap((v, k) => (v === 0 ? [] : [`${'XYZ'[k]} ${v > 0 ? '+' : '−'}${Math.abs(v) / 2}`])).join(', ');
  return i < compared.value ? `tried ${shift}` : shift;
};
const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);
/** The angle at which the joint is looked at; null for the worst of the pivot that is pointed at. */
const angle = ref<number | null>(null);
/** The limb swung about a pivot, as it would stand in the view, with where light comes through. */
function swing(i: number): void {
  const s = studies.value[i],
    j = joint.value,
    bone = session.bone,
    project = session.project;
  if (!s || !j || !bone || !project) {
    rig.swung = null;
    return;
  }
  const worst = s.angles.reduce((b, _a, k) => (s.gap[k]! + s.overlap[k]! > s.gap[b]! + s.overlap[b]! ? k : b), 0);
  const degrees = angle.value ?? s.angles[worst]!;
  const local = swungAt(project, bone.id, j, s.pivot, axis.value, degrees);
  rig.swung = {
    pose: new Map([[bone.id, local]]),
    matrix: j.matrix,
    open: openPoints(j.limb, j.body, s.pivot, axis.value, degrees),
  };
}
function look(degrees: number): void {
  angle.value = degrees;
  swing(Math.max(0, meant.value));
}
function clear(): void {
  rig.swung = null;
  angle.value = null;
  stop?.abort();
  studies.value = [];
  joint.value = null;
  meant.value = -1;
}
async function study(): Promise<void> {
  const bone = session.bone,
    project = session.project;
  if (!bone || !project) return;
  clear();
  try {
    joint.value = jointOf(project, bone.id);
  } catch (e) {
    if (!(e instanceof EditError)) throw e;
    notices.say(e.message, { kind: 'error' });
    return;
  }
  const { limb, body, now } = joint.value;
  const pack = ({ box, words }: CellSet) => ({ box, words });
  stop = new AbortController();
  busy.value = true;
  try {
    const given = withTried(bone.id, now);
    const found = await sharedPool().run(
      'study',
      () => ({ limb: pack(limb), body: pack(body), given, axis: axis.value, angles: ANGLES }),
      { signal: stop.signal },
    );
    if (session.project !== project || session.bone?.id !== bone.id) return;
    studies.value = found;
    compared.value = given.length;
  } catch (e) {
    if (!(e instanceof JobCancelled)) notices.fail(e);
  } finally {
    busy.value = false;
  }
}
function use(i: number): void {
  const s = studies.value[i]!,
    j = joint.value!;
  const delta = mapVec(j.shift(sub(s.pivot, j.now)), (v) => Math.round(v * 1e6) / 1e6);
  if (session.apply(moveJointEdit, { bone: session.bone!.id, delta })) void study();
}
watch(meant, (i) => {
  if (i >= 0) swing(i);
  else if (angle.value === null) rig.swung = null;
  else swing(0);
});
watch(
  () => rig.studies,
  () => void study(),
);
watch(axis, () => {
  if (studies.value.length > 0) void study();
});
watch(
  () => [session.hand.bone, session.project?.parts, session.project?.rig],
  (now, before) => {
    if (now[0] !== before[0] || !busy.value) clear();
  },
);
onBeforeUnmount(clear);
</script>

<template>
  <section aria-label="Joint study" class="study">
    <div class="line">
      <h3>Study</h3>
      <choice-field v-model="axis" label="Axis of the swing" :choices="AXES" />
      <action-button :disabled="!session.bone || busy" tip="Swings the limb and measures" keys="K" @click="study()">
        {{ busy ? 'Measuring…' : 'Study the joint' }}
      </action-button>
      <div
        v-if="studies.length > 0"
        class="axis swing"
        data-tip="Looks at the swung joint in the view: red where light comes through"
      >
        <slider-field
          :min="-60"
          :max="60"
          :step="10"
          :model-value="angle ?? 0"
          label="Angle of the swing"
          @input="look"
        /><span class="figures">{{ angle === null ? '–' : `${angle}°` }}</span>
      </div>
      <action-button v-if="best > 0" look="primary" aria-label="Use the best pivot" @click="use(best)"
        >Use the best</action-button
      >
    </div>
    <p v-if="studies.length === 0" class="quiet">
      Swings what is mounted on the bone against what is above, and finds where it turns with least gap and overlap.
    </p>
    <div v-else class="result">
      <chart-view class="chart" :option="option" label="Gap and overlap over the angle, for each pivot" />
      <div class="list">
        <p class="quiet heads" :data-tip="SUM"><i />gap + <i class="dashed" />overlap</p>
        <ol aria-label="Pivots">
          <li
            v-for="(s, i) in studies"
            :key="i"
            :class="{ best: i === best }"
            @mouseenter="meant = i"
            @mouseleave="meant = -1"
          >
            <span class="figures">{{ i + 1 }}</span><span class="name">{{ about(s, i) }}</span
            ><span class="figures quiet" :data-tip="SUM"
              >{{ mean(s.gap).toFixed(1) }} + {{ mean(s.overlap).toFixed(1) }}</span
            ><action-button v-if="i > 0" look="link" :aria-label="`Use pivot ${i + 1}`" @click="use(i)">
              use</action-button
            ><span v-else />
          </li>
        </ol>
      </div>
    </div>
  </section>
</template>

<style scoped>
.study {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  gap: 6px;
  min-width: 0;
  min-height: 0;
  padding: 8px 14px 6px;
  border-right: 1px solid var(--line);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
}
.line h3 {
  flex: 1;
}
.axis {
  font-size: 12px;
  color: var(--quiet);
}
.swing {
  display: flex;
  gap: 5px;
  align-items: center;
}
.swing .slider-field {
  width: 84px;
}
.swing .figures {
  min-width: 30px;
}
.result {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 178px;
  grid-template-rows: minmax(84px, 1fr);
  gap: 8px;
  min-width: 0;
  min-height: 0;
}
.chart {
  min-width: 0;
  min-height: 0;
}
.list ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.heads {
  display: flex;
  gap: 4px;
  align-items: center;
  justify-content: flex-end;
  padding: 0 32px 0 4px;
  font-size: 11px;
  white-space: nowrap;
}
.list {
  font-size: 11.5px;
  min-height: 0;
  overflow-y: auto;
}
.list li {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr) auto 24px;
  gap: 4px;
  padding: 1px 4px;
  border-radius: 4px;
}
.list li:hover {
  background: var(--hover, var(--honey-soft));
}
/* The two kinds of line in the chart. */
.heads i {
  display: inline-block;
  width: 13px;
  border-top: 2px solid var(--quiet);
}
.heads i.dashed {
  border-top-style: dashed;
}
.list li.best {
  background: var(--honey-soft);
  font-weight: 600;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 1180px) {
  .line {
    flex-wrap: nowrap;
  }
  .line h3,
  .swing .figures {
    display: none;
  }
  .swing .slider-field {
    width: 56px;
  }
  .result {
    grid-template-columns: minmax(0, 1fr) 176px;
  }
}
</style>
