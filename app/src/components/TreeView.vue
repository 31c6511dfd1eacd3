<script setup lang="ts">
import { ElTreeV2 } from 'element-plus';
import 'element-plus/theme-chalk/el-tree.css';
import 'element-plus/theme-chalk/el-text.css';
import 'element-plus/theme-chalk/el-checkbox.css';
import 'element-plus/theme-chalk/el-virtual-list.css';
import { useElementSize, useResizeObserver } from '@vueuse/core';
import { type Directive, computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { commandFor } from '../stores/commands';
import { useDialogs } from '../stores/dialogs';
import TextField from './TextField.vue';
import { type Dragged, type Place, vDrag, vDrop } from './drag';
import { type TreeRow, seenRows, withName } from './tree';

/**
 * A list or tree of records: folds, stays quick at thousands of rows, filters by name, renames in place (F2 or a slow second
 * click on the name), chooses several, drags by mouse, finger and keys (Alt and the arrows).
 *
 * Slots `picture`, `after` and `acts` get `{ row }`.
 */
const props = withDefaults(
  defineProps<{
    rows: readonly TreeRow[];
    label: string;
    /** Pixels of a row. */
    size?: number;
    hand?: string | null;
    chosen?: readonly string[];
    /** Kind of what is dragged from here; without it, nothing is. */
    kind?: Dragged['kind'] | undefined;
    /** Filters by name. */
    words?: string;
    /** Pixels it may be high before it scrolls by itself; else a long one is as high as the tray it stands in. */
    most?: number | undefined;
    accepts?: ((what: Dragged, id: string | null, place: Place) => boolean) | undefined;
    /** Rows keep an order of their own: one can drop between them. */
    ordered?: boolean;
    /** Rows take what is dropped on them. */
    nests?: boolean;
    canRename?: boolean;
    /** Rows that open by double click and Enter; a double click on others is for the name. */
    opens?: (id: string) => boolean;
    /** What is dragged by a row that is not of the kind of the others. */
    dragged?: (id: string) => Dragged | null;
  }>(),
  {
    size: 28,
    hand: null,
    chosen: () => [],
    kind: undefined,
    words: '',
    most: undefined,
    accepts: undefined,
    canRename: true,
    opens: () => false,
    dragged: () => null,
  },
);
const emit = defineEmits<{
  pick: [id: string, event: MouseEvent | KeyboardEvent];
  open: [id: string];
  rename: [id: string, name: string];
  menu: [event: MouseEvent, id: string];
  drop: [what: Dragged, id: string | null, place: Place];
  /** By keys: a place up or down, or under another. */
  nudge: [id: string, by: 'up' | 'down' | 'in' | 'out'];
}>();

const tree = useTemplateRef<InstanceType<typeof ElTreeV2>>('tree');
const host = useTemplateRef<HTMLElement>('host');
const { width } = useElementSize(host);
const folded = ref(new Set<string>());
const renaming = ref<string | null>(null);
const shown = computed(() => withName(props.rows, props.words));
const open = computed(() => (props.words.trim() === '' ? folded.value : new Set<string>()));
const seen = computed(() => seenRows(shown.value, open.value));
const expanded = computed(() =>
  seen.value.filter((s) => s.row.children && !open.value.has(s.row.id)).map((s) => s.row.id),
);
/** Up to so many rows are all there, and the tray scrolls; of more, only those that are seen. */
const ALL_THERE = 80;
const roomy = ref(600);
useResizeObserver(
  () => host.value?.closest<HTMLElement>('.side'),
  ([e]) => (roomy.value = e!.contentRect.height),
);
const most = computed(
  () => props.most ?? (seen.value.length > ALL_THERE ? Math.max(200, roomy.value - 100) : Infinity),
);
const height = computed(() => Math.max(props.size, Math.min(seen.value.length * props.size, most.value)));
// The library takes in what is expanded before it knows new rows.
watch([shown, expanded], () => void nextTick(() => tree.value?.setExpandedKeys(expanded.value)), { immediate: true });
function fold(id: string, on: boolean): void {
  const next = new Set(folded.value);
  if (on) next.add(id);
  else next.delete(id);
  folded.value = next;
}
/** Whether what is chosen was just clicked here: it is in sight, and a second click must find it where it was. */
let clickedHere = false;
function pickAt(id: string, e: MouseEvent): void {
  clickedHere = true;
  emit('pick', id, e);
  void nextTick(() => (clickedHere = false));
}
/** What is chosen elsewhere is brought into sight. */
watch(
  () => props.hand,
  async (id) => {
    if (!id || clickedHere) return;
    if (seen.value.length * props.size > height.value) tree.value?.scrollToNode(id);
    await nextTick();
    rowOf(id)?.scrollIntoView({ block: 'nearest' });
  },
  { immediate: true },
);

/** Roles and places that the library leaves out, told on its own element around the row. */
interface Told {
  readonly row: TreeRow;
  readonly level: number;
  readonly selected: boolean;
  readonly reached: boolean;
}
function tell(el: HTMLElement, { row, level, selected, reached }: Told): void {
  const item = el.closest<HTMLElement>('[role="treeitem"]');
  if (!item) return;
  item.setAttribute('aria-label', row.label ?? (row.more ? `${row.name} ${row.more}` : row.name));
  item.setAttribute('aria-level', String(level));
  item.setAttribute('aria-selected', String(selected));
  item.setAttribute('tabindex', reached ? '0' : '-1');
  item.removeAttribute('aria-checked');
  if (!row.children) item.removeAttribute('aria-expanded');
}
const vTell: Directive<HTMLElement, Told> = {
  mounted: (el, { value }) => tell(el, value),
  updated: (el, { value }) => tell(el, value),
};
const first = computed(() => (seen.value.some((s) => s.row.id === props.hand) ? props.hand : seen.value[0]?.row.id));
const told = (row: TreeRow, level: number): Told => ({
  row,
  level,
  selected: props.chosen.includes(row.id),
  reached: row.id === first.value,
});

function cameByKeys(e: FocusEvent): void {
  if (e.target instanceof HTMLElement && e.target.matches(':focus-visible')) clicked = false;
}
const rowOf = (id: string): HTMLElement | null | undefined =>
  host.value?.querySelector<HTMLElement>(`[data-key="${id}"]`);
async function focus(id: string): Promise<void> {
  tree.value?.scrollToNode(id);
  await nextTick();
  rowOf(id)?.focus();
}
/** Whether the hand came here by the pointer last; the browser's own word on it changes with the first key. */
let clicked = false;
const NUDGES = { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'in', ArrowLeft: 'out' } as const;
function key(e: KeyboardEvent): void {
  const item = (e.target as HTMLElement).closest<HTMLElement>('[role="treeitem"]'),
    id = item?.dataset['key'];
  if (e.target instanceof HTMLInputElement || !id || e.ctrlKey || e.metaKey) return;
  // A row that was only clicked leaves the keys to the view, where they mean something there; one that was walked to has them.
  if (clicked && commandFor(e)) return;
  const at = seen.value.findIndex((s) => s.row.id === id),
    here = seen.value[at];
  if (!here) return;
  const go = (to: string | null | undefined): void => {
    if (!to) return;
    clicked = false;
    emit('pick', to, e);
    void focus(to);
  };
  const nudge = e.altKey && props.kind ? NUDGES[e.key as keyof typeof NUDGES] : undefined;
  if (nudge) {
    emit('nudge', id, nudge);
    void nextTick(() => focus(id));
  } else if (e.altKey) return;
  else if (e.key === 'ArrowDown') go(seen.value[at + 1]?.row.id);
  else if (e.key === 'ArrowUp') go(seen.value[at - 1]?.row.id);
  else if (e.key === 'Home') go(seen.value[0]?.row.id);
  else if (e.key === 'End') go(seen.value.at(-1)?.row.id);
  else if (e.key === 'ArrowRight' && here.row.children) {
    if (open.value.has(id)) fold(id, false);
    else go(here.row.children[0]?.id);
  } else if (e.key === 'ArrowLeft') {
    if (here.row.children && !open.value.has(id)) fold(id, true);
    else go(here.parent);
  } else if (e.key === 'F2') begin(id);
  else if (e.key === 'Enter' && props.opens(id)) emit('open', id);
  else if (e.key === ' ') emit('pick', id, e);
  else return;
  e.preventDefault();
  e.stopPropagation();
}
function begin(id: string): void {
  if (props.canRename) renaming.value = id;
}
function rename(row: TreeRow, name: string): void {
  if (name.trim() !== '' && name !== row.name) emit('rename', row.id, name);
}
const dialogs = useDialogs();
watch(
  () => dialogs.renaming,
  (id) => {
    if (!id || !seen.value.some((s) => s.row.id === id)) return;
    dialogs.renaming = null;
    tree.value?.scrollToNode(id);
    begin(id);
  },
  { immediate: true, flush: 'post' },
);
const source = (row: TreeRow) => (): Dragged | null =>
  props.dragged(row.id) ??
  (props.kind && renaming.value !== row.id
    ? {
        kind: props.kind,
        ids: props.chosen.includes(row.id) ? props.chosen : [row.id],
        label:
          props.chosen.includes(row.id) && props.chosen.length > 1 ? `${props.chosen.length} ${props.kind}s` : row.name,
      }
    : null);
const target = (id: string | null) => ({
  between: (props.ordered ?? false) && id !== null,
  on: props.nests ?? false,
  accepts: (what: Dragged, place: Place) => props.accepts?.(what, id, place) ?? false,
  drop: (what: Dragged, at: { place: Place }) => emit('drop', what, id, at.place),
});
defineExpose({ rename: begin });
</script>

<template>
  <div
    ref="host"
    v-drop="target(null)"
    class="tree-view"
    @keydown="key"
    @pointerdown="clicked = true"
    @focusin="cameByKeys"
  >
    <el-tree-v2
      v-if="rows.length > 0"
      ref="tree"
      :data="shown as TreeRow[]"
      :props="{ value: 'id', label: 'name', children: 'children' }"
      :height="height"
      :item-size="size"
      :indent="13"
      :expand-on-click-node="false"
      :default-expanded-keys="expanded"
      :aria-label="label"
      empty-text="Nothing is called that."
      :style="{ '--row': `${size}px`, '--width': `${width}px` }"
      @node-expand="(d) => fold(d['id'], false)"
      @node-collapse="(d) => fold(d['id'], true)"
      @node-click="(d, _n, e) => pickAt(d['id'], e as MouseEvent)"
      @node-contextmenu="(e, d) => emit('menu', e as MouseEvent, d['id'])"
    >
      <template #default="{ data, node }: { data: TreeRow; node: { level: number } }">
        <div
          v-tell="told(data, node.level)"
          v-drag="source(data)"
          v-drop="target(data.id)"
          class="tree-row"
          :class="{ on: data.id === hand, also: chosen.includes(data.id) }"
          @dblclick="opens(data.id) ? emit('open', data.id) : begin(data.id)"
        >
          <slot name="picture" :row="data" />
          <text-field
            v-if="renaming === data.id"
            :model-value="data.name"
            eager
            :label="`Name of ${data.name}`"
            @click.stop
            @dblclick.stop
            @change="(name) => rename(data, name)"
            @leave="renaming = null"
          /><slot v-else name="name" :row="data"
            ><span class="tree-name">{{ data.name }}</span></slot
          >
          <slot name="after" :row="data" />
          <span v-if="$slots['acts']" class="acts" @click.stop><slot name="acts" :row="data" /></span>
        </div>
      </template>
    </el-tree-v2>
  </div>
</template>

<style>
.tree-view .el-tree {
  --el-tree-node-hover-bg-color: color-mix(in srgb, var(--honey-soft) 55%, transparent);
  --el-tree-expand-icon-color: var(--quiet);
  background: none;
  color: var(--ink);
}
.tree-view .el-tree-node__content {
  height: var(--row);
  align-items: stretch;
}
.tree-view .el-tree-node__content:hover {
  background: none;
}
.tree-view .el-tree-node__expand-icon {
  align-self: center;
  padding: 3px;
}
.tree-view .el-tree-node__expand-icon.is-leaf {
  width: 10px;
  padding: 0;
}
.tree-view .el-tree-node:focus-visible {
  outline: none;
}
.tree-view .el-tree-node:focus-visible .tree-row {
  outline: 2px solid var(--resin);
  outline-offset: -2px;
}
.tree-view .el-tree-node:focus > .el-tree-node__content {
  background: none;
}
.tree-row {
  position: relative;
  display: flex;
  flex: 1;
  align-items: center;
  gap: 8px;
  min-width: 0;
  padding: 0 8px 0 4px;
  cursor: pointer;
  border-radius: 4px;
  touch-action: pan-y;
}
.tree-row:hover {
  background: color-mix(in srgb, var(--honey-soft) 55%, transparent);
}
.tree-row.also,
.tree-row.on {
  background: var(--honey-soft);
}
.tree-row.on {
  box-shadow: inset 3px 0 var(--honey);
}
.tree-name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.tree-row.on .tree-name {
  font-weight: 600;
}
.tree-row .acts {
  display: flex;
  margin-left: auto;
  border-radius: var(--radius);
}
.tree-row .acts > .later.action {
  width: 0;
  border-width: 0;
  opacity: 0;
  overflow: hidden;
}
.tree-row:hover .acts > .later.action,
.el-tree-node:focus .acts > .later.action,
.tree-row .acts:focus-within > .later.action {
  width: 26px;
  opacity: 1;
}
</style>
