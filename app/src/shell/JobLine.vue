<script setup lang="ts">
import { IconAlertTriangle, IconCheck, IconChevronDown, IconLock, IconRefresh } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import ActionButton from '../components/ActionButton.vue';
import CommandButton from '../components/CommandButton.vue';
import { later } from '../components/later';
import type { Project } from '@sphalerite/core/model';
import { runCommand } from '../stores/commands';
import { useDialogs } from '../stores/dialogs';
import { useSession } from '../stores/session';
import type { Screen } from './screen';
import { screens } from './screens';

/** The line above all: the project, the steps of the work, what is being made, and whether all is kept. */
defineProps<{ screen: Screen }>();
const TakesChip = later(() => import('./takes/TakesChip.vue'));
const route = useRoute();
const session = useSession();
const dialogs = useDialogs();

const perScreen = <T,>(of: (s: Screen, p: Project) => T | null): Map<Screen, T> => {
  const p = session.project;
  return new Map(screens().flatMap((s) => ((v) => (v === null ? [] : [[s, v] as const]))(p && of(s, p))));
};
const counts = computed(() => perScreen((s, p) => s.count && s.count(p)));
const wants = computed(() => perScreen((s, p) => s.wants(p)));
const saved = computed(() =>
  !session.writable
    ? 'looking only'
    : { saved: 'saved', pending: 'saving', saving: 'saving', failed: 'not saved' }[session.saveState],
);
const savedTip = computed(() => `Saved in this browser at ${new Date(session.savedAt).toLocaleTimeString('en-GB')}`);
const MENU = [
  'project.rename',
  'project.export',
  'project.bringIn',
  'project.takeFrom',
  'project.shelf',
  'look.theme',
  'look.fold',
  'edit.history',
  'help.shortcuts',
  'help.coach',
];
function projectMenu(e: MouseEvent): void {
  const r = (e.currentTarget as HTMLElement).getBoundingClientRect();
  dialogs.openMenu({ clientX: r.left, clientY: r.bottom + 4 }, MENU);
}
</script>

<template>
  <nav class="job" aria-label="Steps of the work">
    <action-button
      look="bare"
      class="logo"
      aria-label="To the shelf"
      tip="To the shelf"
      keys="Alt+0"
      @click="runCommand('project.shelf')"
      ><img src="/icon.svg" alt="" width="26" height="26"
    /></action-button>
    <action-button look="bare" class="project" data-testid="project-menu" aria-haspopup="menu" @click="projectMenu">
      <b>{{ session.project?.name ?? '…' }}</b><IconChevronDown aria-hidden="true" /><small>{{
        session.project?.kind
      }}</small>
    </action-button>
    <ol class="steps">
      <li v-for="s in screens()" :key="s.id">
        <router-link
          :to="{ name: 'bench', params: { id: route.params['id'], step: s.id } }"
          class="step"
          :aria-label="counts.has(s) ? `${s.title} ${counts.get(s)}` : s.title"
          :class="{ on: s === screen || s.id === screen.beside }"
          :aria-current="s === screen ? 'step' : undefined"
        >
          <component :is="s.icon" aria-hidden="true" /><span class="name">{{ s.title }}</span
          ><span v-if="counts.has(s)" class="count figures">{{ counts.get(s) }}</span
          ><i v-if="wants.get(s)" class="dot" :data-tip="`Still to do: ${wants.get(s)}`" />
        </router-link>
      </li>
    </ol>
    <div class="end">
      <TakesChip />
      <span class="saved" :class="session.saveState" :data-tip="savedTip" data-testid="saved">
        <IconLock v-if="!session.writable" aria-hidden="true" /><IconAlertTriangle
          v-else-if="session.saveState === 'failed'"
          aria-hidden="true"
        /><IconRefresh v-else-if="session.saveState !== 'saved'" aria-hidden="true" /><IconCheck
          v-else
          aria-hidden="true"
        />{{ saved }}
      </span>
      <CommandButton id="edit.undo" bare /><CommandButton id="edit.redo" bare /><CommandButton id="edit.history" bare />
      <action-button class="find" tip="Find a command" @click="dialogs.search = true"
        ><span>Find</span><kbd>Ctrl K</kbd></action-button
      >
    </div>
  </nav>
</template>

<style scoped>
.job {
  grid-row: 1;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 12px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  min-width: 0;
}
.logo.el-button {
  padding: 0 2px;
}
.project.el-button {
  --el-button-text-color: var(--ink);
  padding: 2px 6px;
  max-width: 190px;
}
.project b {
  font-weight: 600;
  font-size: 14px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.project small {
  color: var(--quiet);
  font-size: 11px;
}
.project svg {
  width: 16px;
  height: 16px;
  flex: none;
}
.steps {
  display: flex;
  align-items: center;
  gap: 18px;
  list-style: none;
  margin: 0 auto 0 8px;
  padding: 0;
}
.steps li + li {
  position: relative;
}
.steps li + li::before {
  content: '';
  position: absolute;
  left: -15px;
  top: 50%;
  width: 12px;
  border-top: 1px solid var(--line-strong);
  opacity: 0.5;
}
.step {
  position: relative;
  display: inline-flex;
  align-items: center;
  gap: 7px;
  height: 32px;
  padding: 0 12px;
  border-radius: 16px;
  color: var(--quiet);
  text-decoration: none;
  font-weight: 500;
  font-size: 14px;
  transition: background var(--quick);
}
.step:hover {
  background: var(--honey-soft);
  color: var(--ink);
}
.step svg {
  width: 18px;
  height: 18px;
  stroke-width: 1.6;
}
.step.on {
  background: var(--resin);
  color: var(--resin-ink);
}
.count {
  padding: 0 6px;
  border-radius: 8px;
  background: color-mix(in srgb, var(--line) 70%, transparent);
  font-size: 11px;
  line-height: 17px;
  color: var(--ink);
}
.step.on .count {
  background: none;
  border: 1px solid currentcolor;
  line-height: 15px;
  color: var(--resin-ink);
}
.dot {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--honey);
}
.end {
  display: flex;
  align-items: center;
  gap: 4px;
  flex: none;
}
.saved {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  margin-right: 6px;
  font-size: 12px;
  color: var(--ok);
}
.saved svg {
  width: 16px;
  height: 16px;
}
.saved.failed {
  color: var(--danger);
}
.find.el-button {
  --el-button-text-color: var(--quiet);
  margin-left: 4px;
  padding: 0 8px;
}
/* What is being made is told in the line: the rest of it draws together. */
@media (max-width: 1400px) {
  .job:has(.take) .project small,
  .job:has(.take) .find span {
    display: none;
  }
  .job:has(.take) .steps {
    gap: 12px;
  }
  .job:has(.take) .steps li + li::before {
    left: -11px;
    width: 10px;
  }
}
@media (max-width: 1180px) {
  .step .name {
    display: none;
  }
  .step.on .name {
    display: inline;
  }
  .steps {
    gap: 10px;
  }
  .steps li + li::before {
    display: none;
  }
  .step {
    padding: 0 9px;
  }
  .project small,
  .find span {
    display: none;
  }
}
</style>
