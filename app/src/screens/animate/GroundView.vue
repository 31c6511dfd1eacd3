<script setup lang="ts">
import { type Side, TICKS, sideSuffix } from '@sphalerite/core/model';
import { frameOf, loopGaps } from '@sphalerite/core/motion';
import { closeLoopEdit } from '@sphalerite/core/project';
import { computed, defineAsyncComponent, nextTick, onBeforeUnmount, watch } from 'vue';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';
import { badness, useClipContacts, worstFrame } from '../shared/clip-contacts';
import FloorFields from './FloorFields.vue';
import { tone } from '../../components/tone';
import { useSettings } from '../../stores/settings';
import { groundChart } from './ground-chart';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import { say } from '../../words';

/** What the parts do to the ground and to each other, frame by frame, and how the loop closes; all clips, the worst first. */
const session = useSession();
const anim = useAnimate();
const contacts = useClipContacts();
const { check } = contacts;
const row = computed(() => contacts.rows.get(session.hand.clip ?? '') ?? null);
const name = (id: string | null): string => {
  const p = session.project?.parts.find((o) => o.id === id);
  return p ? p.name + sideSuffix(p.side) : '';
};
const sideOf = (id: string | null): Side => session.project?.parts.find((o) => o.id === id)?.side ?? 'centre';
const gaps = computed(() => (session.clip?.loop && session.project ? loopGaps(session.clip, session.project.rig) : []));
const boneName = (id: string): string => {
  const b = session.project?.rig.bones.find((o) => o.id === id);
  return b ? b.name + sideSuffix(b.side) : '';
};
const ranked = computed(() =>
  [...contacts.rows.values()]
    .sort((a, b) => badness(b) - badness(a))
    .map((r) => ({ clip: session.project?.clips.find((c) => c.id === r.contact.clip), r }))
    .filter((o) => o.clip),
);
const lines = computed(() => {
  const c = row.value?.contact;
  if (!c) return [];
  // Soles, and whatever else goes through the ground.
  return c.tracks
    .filter((t) => t.sole || Math.min(...t.height) < -0.05)
    .map((t) => ({ name: name(t.part), side: sideOf(t.part), height: t.height, slide: t.slide }))
    .slice(0, 5);
});

// Fetched when it is first looked at.
const ChartView = defineAsyncComponent(() => import('../../components/chart/ChartView.vue'));
const { settings } = useSettings();
const OTHERS = ['--resin', '--axis-z', '--axis-x', '--honey'];
const option = computed(() =>
  groundChart(lines.value, session.clip ? (anim.time * session.clip.fps) / TICKS : 0, {
    sides: (settings.theme, { left: tone('--side-left'), right: tone('--side-right') }),
    others: OTHERS.map(tone),
    ground: tone('--ink'),
    now: tone('--resin'),
  }),
);
function scrubTo(frame: number): void {
  if (session.clip) anim.scrub((Math.round(frame) * TICKS) / session.clip.fps);
}
const here = (): Promise<void> => check(session.hand.clip ? [session.hand.clip] : []);
// Looked at anew whenever the clip, the rig or the cubes change.
watch(
  () => [session.hand.clip, session.project?.clips, session.project?.rig, session.project?.parts, contacts.still],
  () => {
    if (!row.value) void here();
  },
  { immediate: true, flush: 'post' },
);
function go(clip: string, frame: number): void {
  session.choose({ clip });
  void nextTick(() => anim.scrub((frame * TICKS) / (session.clip?.fps ?? 24)));
}
onBeforeUnmount(contacts.stop);
const round = (v: number): string => v.toFixed(2);
</script>

<template>
  <div class="ground">
    <section class="findings" aria-label="Contact of this clip">
      <p v-if="contacts.busy && !row" class="quiet" role="status">Measuring…</p>
      <template v-else-if="row">
        <p :class="{ good: row.contact.depth.by <= 0.05 }">
          {{ row.contact.depth.by <= 0.05 ? 'Nothing goes through the ground.' : ''
          }}<template v-if="row.contact.depth.by > 0.05"
            >{{ name(row.contact.depth.part) }} is {{ round(row.contact.depth.by) }} cubes through the ground.
            <action-button look="link" @click="go(row.contact.clip, row.contact.depth.frame)">
              frame {{ row.contact.depth.frame }}
            </action-button></template
          >
        </p>
        <p :class="{ good: row.contact.slide.by <= 0.1 }">
          {{ row.contact.slide.by <= 0.1 ? 'No standing sole slides.' : ''
          }}<template v-if="row.contact.slide.by > 0.1"
            >{{ name(row.contact.slide.part) }} slides {{ round(row.contact.slide.by) }} cubes a frame.
            <action-button look="link" @click="go(row.contact.clip, row.contact.slide.frame)">
              frame {{ row.contact.slide.frame }}
            </action-button></template
          >
        </p>
        <p class="quiet">
          The ground goes {{ round(Math.hypot(...row.contact.ground)) }} cubes a frame under it.
          <check-field v-model="contacts.still">it stands still</check-field>
        </p>
        <FloorFields v-if="session.clip" :clip="session.clip" />
        <p v-if="session.clip?.loop" :class="{ good: gaps.length === 0 }">
          {{
            gaps.length === 0
              ? 'The loop closes.'
              : `The loop does not close: ${boneName(gaps[0]!.bone)} is off by ${round(gaps[0]!.move)} cubes and ${gaps[0]!.turn.toFixed(1)}°${gaps.length > 1 ? `, ${gaps.length - 1} more` : ''}.`
          }}
          <action-button
            v-if="gaps.length > 0"
            look="link"
            @click="session.apply(closeLoopEdit, { clip: session.clip!.id })"
          >
            close it
          </action-button>
        </p>
        <p v-if="row.clashes.length === 0" class="good">No parts pass through each other.</p>
        <ul v-else>
          <li v-for="c in row.clashes.slice(0, 6)" :key="c.a + c.b">
            {{ say('ground.clash', { n: c.cubes, a: name(c.a), b: name(c.b) }) }}
            <action-button look="link" @click="go(row.contact.clip, c.frame)">frame {{ c.frame }}</action-button>
          </li>
        </ul>
      </template>
      <p v-else class="quiet">Choose a clip on the left.</p>
    </section>
    <div class="middle">
      <chart-view
        v-if="lines.length > 0"
        class="chart"
        :option="option"
        label="Height of the soles above the ground"
        @point="scrubTo"
      />
      <p v-if="row && lines.length === 0" class="quiet hint">Nothing stands on the ground in this clip.</p>
    </div>
    <section class="all" aria-label="All clips">
      <div class="row">
        <h3>All clips</h3>
        <action-button
          :disabled="contacts.busy || !session.project || session.project.clips.length === 0"
          @click="check(session.project!.clips.map((c) => c.id))"
        >
          {{ contacts.busy ? 'Measuring…' : 'Check all' }}
        </action-button>
      </div>
      <ol v-if="ranked.length > 1">
        <li v-for="{ clip, r } in ranked" :key="r.contact.clip" :class="{ on: clip!.id === session.hand.clip }">
          <action-button look="link" :aria-label="`Look at ${clip!.name}`" @click="go(clip!.id, worstFrame(r))">
            {{ clip!.name }}</action-button><span
            class="figures quiet"
            data-tip="Deepest, furthest slide, most cubes in another part"
            >{{ round(r.contact.depth.by) }} · {{ round(r.contact.slide.by) }} · {{ r.clashes[0]?.cubes ?? 0 }}</span
          >
        </li>
      </ol>
      <p v-else class="quiet">Measures every clip, the worst first.</p>
      <p v-if="row && frameOf(session.clip!, session.clip!.length) > 0" class="quiet small">
        depth · slide · cubes in another part
      </p>
    </section>
  </div>
</template>

<style scoped>
.ground {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr) 230px;
  min-height: 0;
}
.findings,
.all {
  padding: 10px 14px;
  overflow: auto;
  display: grid;
  gap: 6px;
  align-content: start;
  font-size: 12.5px;
}
.findings {
  border-right: 1px solid var(--line);
}
.all {
  border-left: 1px solid var(--line);
}
.middle {
  min-width: 0;
  min-height: 0;
  padding: 8px;
  display: grid;
}
.chart {
  min-height: 0;
  min-width: 0;
  height: 100%;
}
.good {
  color: var(--ok);
}
.check {
  white-space: nowrap;
}
.check input {
  accent-color: var(--resin);
  margin: 0 4px 0 0;
  vertical-align: -2px;
}
ul,
ol {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 3px;
}
ol li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 1px 5px;
  border-radius: 4px;
}
ol li .el-button {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
ol li .figures {
  flex: none;
}
ol li.on {
  background: var(--honey-soft);
}
.row {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.small {
  font-size: 11px;
}
.hint {
  padding: 10px;
}
</style>
