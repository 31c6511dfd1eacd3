<script setup lang="ts">
import type { Exporter } from '@sphalerite/core/files';
import {
  READY_PALETTES,
  SORTS,
  type SwatchSort,
  confused,
  nearDuplicates,
  sortedBytes,
} from '@sphalerite/core/palette';
import { deleteSwatchesEdit, orderSwatchesEdit, renamePaletteEdit } from '@sphalerite/core/project';
import { computed, onMounted, ref, shallowRef } from 'vue';
import NameField from '../../../components/NameField.vue';
import { download, exported } from '../../../shell/files/exporting';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useSettings } from '../../../stores/settings';
import { useColours } from './colours-state';
import SwatchChip from './SwatchChip.vue';

const session = useSession();
const colours = useColours();
const notices = useNotices();
const { settings } = useSettings();
const palette = computed(() => session.palette!);
const unused = computed(() =>
  palette.value.swatches.filter((s) => (colours.use?.total[s.byte] ?? 0) + (colours.use?.kept[s.byte] ?? 0) === 0),
);
const near = computed(() => nearDuplicates(palette.value));
const unseen = computed(() => confused(palette.value, settings.vision));
const WORDS: Record<SwatchSort, string> = {
  hue: 'by hue',
  light: 'dark to light',
  vivid: 'most vivid first',
  name: 'by name',
  use: 'most used first',
};
// Readers and writers of files come after what is looked at.
const writers = shallowRef<readonly Exporter[]>([]);
onMounted(async () => {
  writers.value = (await import('@sphalerite/core/files')).EXPORTERS.filter((e) => e.takes === 'palette');
});
function sort(by: SwatchSort): void {
  colours.count();
  session.apply(orderSwatchesEdit, {
    palette: palette.value.id,
    bytes: sortedBytes(palette.value, by, colours.use?.total),
  });
}
function dropUnused(): void {
  colours.count();
  const list = unused.value;
  const bytes =
    list.length === palette.value.swatches.length ? list.slice(1).map((s) => s.byte) : list.map((s) => s.byte);
  if (session.apply(deleteSwatchesEdit, { palette: palette.value.id, bytes, moveTo: null }))
    notices.say(`${bytes.length} unused swatches dropped. Undo brings them back.`);
}
async function save(exporter: string): Promise<void> {
  const subject = { of: 'palette', palette: palette.value.id, colourway: session.view.colourway } as const;
  try {
    const { files } = await exported(session.project!, { exporter, subject, options: {} });
    for (const f of files) download(f);
  } catch (e) {
    notices.fail(e);
  }
}
const picker = ref<HTMLInputElement>();
async function open(): Promise<void> {
  const files = [...(picker.value?.files ?? [])];
  picker.value!.value = '';
  await (await import('../../../shell/files/dispatcher')).takeFiles(files, 'palette');
}
function ready(name: string): void {
  const r = READY_PALETTES.find((o) => o.name === name);
  if (r) colours.task = { kind: 'palette', name: r.name, swatches: r.swatches };
}
</script>

<template>
  <section class="panel-section" aria-label="Palette">
    <div class="panel-head">
      <NameField
        :name="palette.name"
        label="Name of the palette"
        :disabled="!session.writable"
        @rename="(name) => session.apply(renamePaletteEdit, { palette: palette.id, name })"
      /><span class="quiet">palette</span>
    </div>
    <div class="two">
      <select
        class="pick"
        aria-label="Sort the palette"
        value=""
        @change="sort(($event.target as HTMLSelectElement).value as SwatchSort)"
      >
        <option value="" disabled>Sort…</option>
        <option v-for="s in SORTS" :key="s" :value="s">{{ WORDS[s] }}</option>
      </select>
      <select
        class="pick"
        aria-label="Save the palette"
        value=""
        @change="save(($event.target as HTMLSelectElement).value)"
      >
        <option value="" disabled>Save as…</option>
        <option v-for="e in writers" :key="e.id" :value="e.id">{{ e.name.replace('Palette, ', '') }}</option>
      </select>
      <select
        class="pick"
        aria-label="A ready palette"
        value=""
        @change="ready(($event.target as HTMLSelectElement).value)"
      >
        <option value="" disabled>Ready ones…</option>
        <option v-for="r in READY_PALETTES.slice(0, 3)" :key="r.name" :value="r.name">
          {{ r.name }}: {{ r.mood }}
        </option>
      </select>
      <button type="button" class="btn" @click="picker?.click()">From a file…</button>
    </div>
    <input ref="picker" type="file" accept=".json,.hex,.txt,.png" hidden aria-label="Palette file" @change="open" />
    <button type="button" class="btn" :disabled="unused.length === 0" @click="dropUnused">
      Drop {{ unused.length }} unused
    </button>
    <div v-if="near.length > 0">
      <p class="quiet">Hard to tell apart:</p>
      <div v-for="n in near.slice(0, 4)" :key="`${n.a.byte} ${n.b.byte}`" class="near">
        <SwatchChip :swatch="n.a" small named /><SwatchChip :swatch="n.b" small named /><button
          type="button"
          class="link"
          @click="colours.task = { kind: 'delete', bytes: [n.b.byte] }"
        >
          unite
        </button>
      </div>
    </div>
    <div v-if="unseen.length > 0">
      <p class="quiet">
        With this vision {{ unseen.length }} {{ unseen.length === 1 ? 'pair looks' : 'pairs look' }} alike:
      </p>
      <div v-for="n in unseen.slice(0, 4)" :key="`${n.a.byte} ${n.b.byte}`" class="near">
        <SwatchChip :swatch="n.a" small named /><SwatchChip :swatch="n.b" small named />
      </div>
    </div>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.pick {
  min-width: 0;
  height: 28px;
  padding: 0 4px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
}
.two .btn {
  padding: 0 4px;
  font-size: 12px;
}
.near {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 6px;
  align-items: center;
  font-size: 12px;
  padding: 2px 0;
}
.link {
  color: var(--resin);
  text-decoration: underline;
  font-size: 12px;
}
</style>
