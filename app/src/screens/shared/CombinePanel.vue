<script setup lang="ts">
import { type CombinePlan, type Edit, EditError } from '@sphalerite/core/project';
import type { Combining } from '@sphalerite/core/sculpt';
import { computed, onUnmounted, ref, watch } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import { useSession } from '../../stores/session';
import { combineText } from './combine-text';

/** A way to combine, ready to be tried and set. */
export interface CombineJob {
  readonly edit: Edit<never>;
  readonly args: unknown;
}
/** What is chosen becomes one with the one in hand, or is taken from it: tried in the view, told, then set. */
const props = defineProps<{
  /** Told before it is done; what cannot be throws an EditError. */
  plan: (op: Combining) => CombinePlan;
  job: (op: Combining | 'carve', keep: boolean) => CombineJob;
  /** Whether overlaps can be cut from the others. */
  carves?: boolean;
  /** Changes when something else is chosen. */
  chosen: string;
}>();
const emit = defineEmits<{ done: [] }>();
const session = useSession();
const KINDS: readonly [Combining | 'carve', string, string][] = [
  ['unite', 'Unite', 'All of them as one part'],
  ['subtract', 'Subtract', 'The one in hand without the others'],
  ['intersect', 'Intersect', 'What all of them share'],
  ['carve', 'Cut overlaps', 'The others without what stands in the one in hand'],
];
const op = ref<Combining | 'carve' | null>(null);
const keep = ref(false);
/** What it comes to, or why it cannot be. */
const plan = computed<CombinePlan | string | null>(() => {
  if (!op.value || op.value === 'carve' || !session.project) return null;
  try {
    return props.plan(op.value);
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
  const { edit, args } = props.job(op.value, keep.value);
  const tried = await session.tryInBackground(edit as Edit<unknown>, args, mine.signal);
  if (!mine.signal.aborted && tried) session.preview = tried;
}
watch([op, keep], () => void preview());
watch(() => props.chosen, end);
async function set(): Promise<void> {
  const { edit, args } = props.job(op.value!, keep.value);
  end();
  if (await session.applyInBackground(edit as Edit<unknown>, args)) emit('done');
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
        v-for="[kind, text, tip] in KINDS.slice(0, carves ? 4 : 3)"
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
