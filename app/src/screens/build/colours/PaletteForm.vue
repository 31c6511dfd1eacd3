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
import { computed, onMounted, shallowRef } from 'vue';
import NameField from '../../../components/NameField.vue';
import { download, exported } from '../../../shell/files/exporting';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useSettings } from '../../../stores/settings';
import { useColours } from './colours-state';
import SwatchChip from './SwatchChip.vue';
import FileButton from '../../../components/FileButton.vue';
import ActionButton from '../../../components/ActionButton.vue';
import SelectField from '../../../components/SelectField.vue';
import { choices, records } from '../../../components/choices';
import { say } from '../../../words';

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
    notices.say(say('palette.dropped', { n: bytes.length }));
}
async function save(exporter: string): Promise<void> {
  const subject = { of: 'palette', palette: palette.value.id, colourway: session.view.colourway } as const;
  try {
    const { files } = await exported(session.project!, { exporter, subject, options: {} });
    download(files);
  } catch (e) {
    notices.fail(e);
  }
}
async function open(files: File[]): Promise<void> {
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
      <SelectField
        label="Sort the palette"
        :model-value="undefined"
        @change="sort"
        placeholder="Sort…"
        :choices="choices(SORTS, (s) => WORDS[s])"
      />
      <SelectField
        label="Save the palette"
        :model-value="undefined"
        @change="save"
        placeholder="Save as…"
        :choices="records(writers, (e) => e.name.replace('Palette, ', ''))"
      />
      <SelectField
        label="A ready palette"
        :model-value="undefined"
        @change="ready"
        placeholder="Ready ones…"
        :choices="READY_PALETTES.slice(0, 3).map((r) => ({ value: r.name, text: `${r.name}: ${r.mood}` }))"
      />
      <file-button accept=".json,.hex,.txt,.png" multiple @files="open">From a file…</file-button>
    </div>
    <action-button :disabled="unused.length === 0" @click="dropUnused"> Drop {{ unused.length }} unused </action-button>
    <div v-if="near.length > 0">
      <p class="quiet">Hard to tell apart:</p>
      <div v-for="n in near.slice(0, 4)" :key="`${n.a.byte} ${n.b.byte}`" class="near">
        <SwatchChip :swatch="n.a" small named /><SwatchChip :swatch="n.b" small named /><action-button
          look="link"
          @click="colours.task = { kind: 'delete', bytes: [n.b.byte] }"
        >
          unite
        </action-button>
      </div>
    </div>
    <div v-if="unseen.length > 0">
      <p class="quiet">
        {{ say('palette.alike', { n: unseen.length }) }}
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
</style>
