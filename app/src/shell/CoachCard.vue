<script setup lang="ts">
/**
 * The first steps, over the demo project alone. A card of our own and not a tour of the library, which holds the keys while it
 * stands: here one is to work on what it speaks of.
 */
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useSession } from '../stores/session';
import { useSettings } from '../stores/settings';
import { useDialogs } from '../stores/dialogs';
import { useNotices } from '../stores/notices';
import { DEMO, GREETING } from './first-visit';
import { screens } from './screens';
import type { Screen } from './screen';
import ActionButton from '../components/ActionButton.vue';

const dialogs = useDialogs();
const notices = useNotices();
const props = defineProps<{ screen: Screen }>();
const { settings } = useSettings();
const session = useSession();
const router = useRouter();
/** What is said is of the screen that one is on, however one came there. */
const at = computed(() => screens().indexOf(props.screen));

const made = (where: string): boolean =>
  (session.history?.entries ?? []).slice(1, (session.history?.now ?? 0) + 1).some((e) => e.where === where);
// What it says is of Tamsin, step by step: over anything else, and beside the way, it would not be true.
const wanted = computed(() => at.value >= 0 && (!settings.coachDone || dialogs.coach));
const open = computed(() => wanted.value && session.project?.id === DEMO);
/** The scene that greets says only what it is, and leads to her. */
const greets = computed(() => wanted.value && session.project?.id === GREETING.id && props.screen.id === GREETING.step);
const lesson = computed(() => props.screen.help.lesson);

async function show(i: number): Promise<void> {
  if (session.project) await router.push({ name: 'bench', params: { id: session.project.id, step: screens()[i]!.id } });
}
/** A first visit may be quicker than the demo projects that come behind the first. */
async function begin(): Promise<void> {
  await (await import('./seed-demo')).seedOthers();
  await router.push({ name: 'bench', params: { id: DEMO, step: screens()[0]!.id } });
}
function finish(): void {
  settings.coachDone = true;
  dialogs.coach = false;
}
</script>

<template>
  <aside v-if="greets" class="coach" role="dialog" aria-label="Welcome" data-testid="coach">
    <h2>Night market on the quay</h2>
    <p>
      All of it was made on this bench, and all of it can be changed: drag to walk round, double-click a stall to paint
      it where it stands.
    </p>
    <p>Tamsin, under the lanterns, shows in six steps how it is done.</p>
    <footer class="row">
      <action-button @click="finish">Skip</action-button>
      <action-button look="primary" @click="begin().catch(notices.fail)">First steps</action-button>
    </footer>
  </aside>
  <aside v-else-if="open" class="coach" role="dialog" aria-label="First steps" data-testid="coach">
    <p class="quiet figures">{{ at + 1 }} of {{ screens().length }}</p>
    <h2>{{ lesson.title }}</h2>
    <p>{{ lesson.text }}</p>
    <footer class="row">
      <action-button @click="finish">Skip</action-button>
      <span class="dots" aria-hidden="true"><i v-for="(_, i) in screens()" :key="i" :class="{ on: i === at }" /></span>
      <action-button v-if="at < screens().length - 1" look="primary" @click="show(at + 1)">
        {{ made(screens()[at]!.title) ? 'Well done. Next' : 'Next' }}
      </action-button>
      <action-button v-else look="primary" @click="finish">Done</action-button>
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
