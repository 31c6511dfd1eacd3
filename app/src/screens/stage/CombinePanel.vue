<script setup lang="ts">
import {
  EditError,
  type CombinePlan,
  carvePlacementsEdit,
  combinePlacementsEdit,
  planCombinePlacements,
} from '@sphalerite/core/project';
import type { Combining } from '@sphalerite/core/sculpt';
import { computed, onUnmounted, ref, watch } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import { useSession } from '../../stores/session';
import { combineText } from '../shared/combine-text';

/** What is chosen becomes one with the one in hand, or is taken from it: tried in the view, told, then set. */
const session = useSession();
const KINDS: readonly [Combining | 'carve', string, string][] = [
  ['unite', 'Unite', 'All of them as one part'],
  ['subtract', 'Subtract', 'The one in hand without the others'],
  ['intersect', 'Intersect', 'What all of them share'],
  ['carve', 'Cut overlaps', 'The others without what stands in the one in hand'],
];
const op = ref<Combining | 'carve' | null>(null);
const keep = ref(false);
const args = computed(() => ({
  scene: session.scene!.id,
  home: session.hand.placement!,
  others: session.view.chosen.placement.filter((id) => id !== session.hand.placement),
}));
/** What it comes to, or why it cannot be. */
const plan = computed<CombinePlan | string | null>(() => {
  if (!op.value || op.value === 'carve' || !session.project) return null;
  try {
    return planCombinePlacements(session.project, { ...args.value, op: op.value });
  } catch (e) {
    if (!(e instanceof EditError)) throw e;
    return e.message;
  }
});
const told = computed(() => (typeof plan.value === 'string' ? plan.value : plan.value ? combineText(plan.value) : ''));
let stop: AbortController | null = null;
async function preview(): Promise<void> {
  stop?.abort();
  const mine = (stop = new AbortController());
  session.preview = null;
  if (!op.value || typeof plan.value === 'string') return;
  const tried =
    op.value === 'carve'
      ? await session.tryInBackground(carvePlacementsEdit, args.value, mine.signal)
      : await session.tryInBackground(
          combinePlacementsEdit,
          { ...args.value, op: op.value, keep: keep.value },
          mine.signal,
        );
  if (!mine.signal.aborted && tried) session.preview = tried;
}
watch([op, keep, args], () => void preview());
async function set(): Promise<void> {
  const now = op.value!;
  end();
  const chosen = () => ({ placement: args.value.home });
  if (now === 'carve') await session.applyInBackground(carvePlacementsEdit, args.value, chosen);
  else
    await session.applyInBackground(combinePlacementsEdit, { ...args.value, op: now, keep: keep.value }, () => ({
      placement: args.value.home,
    }));
}
function end(): void {
  stop?.abort();
  op.value = null;
  session.preview = null;
}
onUnmounted(end);
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h3>Combine</h3>
      <span class="quiet">in the place of the one in hand</span>
    </div>
    <div class="two">
      <action-button
        v-for="[kind, text, tip] in KINDS"
        :key="kind"
        :on="op === kind"
        :tip="tip"
        :disabled="!session.writable"
        @click="op = op === kind ? null : kind"
        >{{ text }}</action-button
      >
    </div>
    <template v-if="op">
      <p v-if="told" class="told">{{ told }}</p>
      <check-field v-if="op !== 'carve'" v-model="keep">Keep the others</check-field>
      <div class="two">
        <action-button look="primary" :disabled="typeof plan === 'string'" @click="set">Set it</action-button>
        <action-button @click="end">Cancel</action-button>
      </div>
    </template>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
}
.told {
  margin: 8px 0;
}
</style>
