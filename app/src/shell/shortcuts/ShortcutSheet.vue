<script setup lang="ts">
import { IconPrinter, IconRotate2 } from '@tabler/icons-vue';
import { computed, ref } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import FileButton from '../../components/FileButton.vue';
import IconButton from '../../components/IconButton.vue';
import TextField from '../../components/TextField.vue';
import { keysFor, keysOf } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { useSettings } from '../../stores/settings';
import { download } from '../files/exporting';
import { screens } from '../screens';
import catalogue from './catalogue.json';
import { type Bound, clashesOf } from './clashes';
import { readShortcuts, writeShortcuts } from './shortcut-file';
import DialogBox from '../../components/DialogBox.vue';

/** Every shortcut by screen: to look up, to print, to change and to share. */
const dialogs = useDialogs();
const notices = useNotices();
const { settings } = useSettings();
const words = ref('');
const EVERYWHERE = '';
const here = ref(screens().find((s) => location.pathname.endsWith(`/${s.id}`))?.id ?? EVERYWHERE);
const tabs = computed(() => [
  ...screens().map((s) => ({ value: s.id, text: s.title })),
  { value: EVERYWHERE, text: 'Everywhere' },
]);
type Row = (typeof catalogue)[number];
const now = (c: Row): Bound => ({ ...c, keys: keysFor(c) });
/** What else a command's shortcut means, on any screen together with what is there everywhere. */
const clashes = computed(() => {
  const out = new Map<string, { keys: string; others: Set<string> }>();
  for (const s of screens()) {
    const there = catalogue.filter((c) => c.screen === EVERYWHERE || c.screen === s.id).map(now);
    for (const { keys, commands } of clashesOf(there))
      for (const c of commands) {
        const found = out.get(c.id) ?? { keys, others: new Set<string>() };
        for (const o of commands) if (o.id !== c.id) found.others.add(`“${o.title}”`);
        out.set(c.id, found);
      }
  }
  return out;
});
const groups = computed(() => {
  const w = words.value.trim().toLowerCase();
  const out = new Map<string, Row[]>();
  for (const c of catalogue) {
    if (w === '' ? c.screen !== here.value : !`${c.title} ${keysFor(c).join(' ')}`.toLowerCase().includes(w)) continue;
    out.set(c.group, [...(out.get(c.group) ?? []), c]);
  }
  return [...out];
});
/** The command whose new shortcut is waited for. */
const asking = ref<string | null>(null);
function press(e: KeyboardEvent, c: Row): void {
  if (asking.value !== c.id || ['Shift', 'Control', 'Alt', 'Meta'].includes(e.key)) return;
  e.preventDefault();
  e.stopPropagation();
  asking.value = null;
  if (e.key === 'Escape') return;
  const keys = e.key === 'Backspace' || e.key === 'Delete' ? [] : [keysOf(e)];
  settings.keys = { ...settings.keys, [c.id]: keys };
}
function reset(id: string): void {
  const { [id]: _gone, ...rest } = settings.keys;
  settings.keys = rest;
}
const changed = computed(() => Object.keys(settings.keys).length);
const save = (): void =>
  download([{ name: 'shortcuts.json', bytes: new TextEncoder().encode(writeShortcuts(settings.keys)) }]);
async function read([file]: File[]): Promise<void> {
  try {
    settings.keys = readShortcuts(await file!.text(), file!.name);
  } catch (e) {
    notices.fail(e);
  }
}
const print = (): void => window.print();
</script>

<template>
  <dialog-box
    v-model="dialogs.shortcuts"
    class="shortcut-sheet"
    title="Shortcuts"
    width="min(820px, 94vw)"
    @keydown.esc="asking && $event.stopPropagation()"
  >
    <div class="tools">
      <text-field v-model="words" class="words" label="Shortcuts whose name holds" placeholder="filter…" eager />
      <choice-field v-model="here" label="Screen" :choices="tabs" />
      <icon-button :icon="IconPrinter" label="Print" @click="print" />
    </div>
    <div class="groups">
      <section v-for="[name, rows] in groups" :key="name" :aria-label="name">
        <h3>{{ name }}</h3>
        <div v-for="c in rows" :key="c.id" class="line" :class="{ clash: clashes.has(c.id) }">
          <span class="title">{{ c.title }}</span>
          <action-button
            look="bare"
            class="keys"
            :aria-label="`Shortcut of ${c.title}: ${keysFor(c).join(', ') || 'none'}`"
            tip="Press to change it; Backspace takes it away"
            @click="asking = c.id"
            @keydown="press($event, c)"
            @blur="asking = null"
            ><em v-if="asking === c.id">press keys…</em
            ><template v-else
              ><kbd v-for="k in keysFor(c)" :key="k">{{ k }}</kbd
              ><span v-if="keysFor(c).length === 0">–</span></template
            ></action-button
          >
          <icon-button
            v-if="settings.keys[c.id]"
            :icon="IconRotate2"
            class="small"
            :label="`${c.title} as it comes`"
            @click="reset(c.id)"
          />
          <p v-if="clashes.has(c.id)" class="why" role="alert">
            {{ clashes.get(c.id)!.keys }} means {{ [...clashes.get(c.id)!.others].join(' and ') }} too. Change one of
            them.
          </p>
        </div>
      </section>
      <p v-if="groups.length === 0" class="quiet">Nothing is called that. Try a shorter word.</p>
    </div>
    <div class="tools foot">
      <action-button :disabled="changed === 0" @click="save">Save mine as a file</action-button>
      <file-button accept=".json,application/json" @files="read">Read from a file…</file-button>
      <action-button :disabled="changed === 0" @click="settings.keys = {}">All as they come</action-button>
    </div>
  </dialog-box>
</template>

<style>
.shortcut-sheet .tools {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.shortcut-sheet .words {
  width: 170px;
}
.shortcut-sheet .foot {
  padding-top: 12px;
}
.shortcut-sheet .groups {
  columns: 2;
  column-gap: 28px;
  height: min(56vh, 480px);
  overflow: auto;
  margin-top: 12px;
}
.shortcut-sheet section {
  break-inside: avoid-column;
  padding-bottom: 10px;
}
.shortcut-sheet .line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  min-height: 27px;
  border-bottom: 1px solid color-mix(in srgb, var(--line) 60%, transparent);
}
.shortcut-sheet .title {
  flex: 1;
}
.shortcut-sheet .keys.el-button {
  padding: 0 4px;
}
.shortcut-sheet .clash kbd {
  color: var(--danger);
  border-color: var(--danger);
}
.shortcut-sheet .why {
  flex: 0 0 100%;
  font-size: 12px;
  color: var(--danger);
}
@media print {
  :root,
  :root[data-theme='dusk'] {
    --ink: #000;
    --quiet: #444;
    --panel: #fff;
    --raised: #fff;
    --line: #bbb;
  }
  /* The sheet stands among the rest of the page. */
  #app:has(.shortcut-sheet) > :not(:has(.shortcut-sheet)),
  .shortcut-sheet .tools,
  .shortcut-sheet .el-dialog__headerbtn {
    display: none;
  }
  .shortcut-sheet.el-dialog {
    width: 100% !important;
    box-shadow: none;
    background: #fff;
  }
  .shortcut-sheet .groups {
    height: auto;
    overflow: visible;
  }
  .el-overlay:has(.shortcut-sheet),
  .el-overlay-dialog {
    position: static !important;
    overflow: visible !important;
  }
}
</style>
