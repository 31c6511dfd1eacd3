<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useSession } from '../stores/session';
import { useSettings } from '../stores/settings';
import { useDialogs } from '../stores/dialogs';
import type { Step } from './screen';

const dialogs = useDialogs();
defineProps<{ step: Step }>();
const { settings } = useSettings();
const session = useSession();
const router = useRouter();
const at = ref(0);

interface Lesson {
  readonly step: Step;
  readonly title: string;
  readonly text: string;
  done(): boolean;
}
const made = (where: string): boolean =>
  (session.history?.entries ?? []).slice(1, (session.history?.now ?? 0) + 1).some((e) => e.where === where);
const LESSONS: readonly Lesson[] = [
  {
    step: 'build',
    title: 'This is Tamsin. Change something',
    text: 'Pick a swatch below, then drag on her coat with “Add box”: first the footprint, then move up for the height and click.',
    done: () => made('Build'),
  },
  {
    step: 'rig',
    title: 'Bend her',
    text: 'Click a white joint, then drag one of the coloured rings around it. Everything that hangs on the bone comes along.',
    done: () => made('Rig'),
  },
  {
    step: 'animate',
    title: 'Let her walk',
    text: 'Press P to play the walk. Drag in the ruler to stop at a frame; turn a bone there and a key is set for you.',
    done: () => made('Animate') || settings.coachDone,
  },
  {
    step: 'light',
    title: 'Make a picture',
    text: 'Press “Trace the picture”. It grows clearer while you watch; save it as a PNG whenever you like it.',
    done: () => false,
  },
  {
    step: 'ship',
    title: 'Send her out',
    text: '“Save the GLB” writes a file that game engines open: parts, bones and clips with their names. Then go to the shelf and begin a small lamp of your own.',
    done: () => false,
  },
];
const open = computed(() => (!settings.coachDone || dialogs.coach) && session.project !== null);
const lesson = computed(() => LESSONS[at.value]!);
watch(open, (o) => o && (at.value = 0));

async function show(i: number): Promise<void> {
  at.value = i;
  if (session.project) await router.push({ name: 'bench', params: { id: session.project.id, step: LESSONS[i]!.step } });
}
function finish(): void {
  settings.coachDone = true;
  dialogs.coach = false;
}
</script>

<template>
  <aside v-if="open" class="coach" role="dialog" aria-label="First steps" data-testid="coach">
    <p class="quiet figures">{{ at + 1 }} of {{ LESSONS.length }}</p>
    <h2>{{ lesson.title }}</h2>
    <p>{{ lesson.text }}</p>
    <footer class="row">
      <button type="button" class="btn" @click="finish">Skip</button>
      <span class="dots" aria-hidden="true"><i v-for="(_, i) in LESSONS" :key="i" :class="{ on: i === at }" /></span>
      <button v-if="at < LESSONS.length - 1" type="button" class="btn primary" @click="show(at + 1)">
        {{ lesson.done() ? 'Well done. Next' : 'Next' }}
      </button>
      <button v-else type="button" class="btn primary" @click="finish">Done</button>
    </footer>
  </aside>
</template>

<style scoped>
.coach {
  position: absolute;
  left: 14px;
  bottom: 14px;
  width: 290px;
  padding: 12px 14px;
  display: grid;
  gap: 6px;
  background: var(--panel);
  border: 1px solid var(--honey);
  border-radius: 8px;
  box-shadow: var(--shadow);
}
.coach h2 {
  font-size: 15px;
}
footer {
  justify-content: space-between;
  margin-top: 4px;
}
.dots {
  display: flex;
  gap: 5px;
}
.dots i {
  width: 7px;
  height: 7px;
  border-radius: 50%;
  background: var(--line);
}
.dots i.on {
  background: var(--resin);
}
</style>
