<script setup lang="ts">
import {
  IconBadgeVr,
  IconDeviceDesktop,
  IconDeviceMobile,
  IconDots,
  IconPackageExport,
  IconPlus,
  IconPrinter,
} from '@tabler/icons-vue';
import { EXPORTERS, PROFILE_ENDING, shipsModels, writeProfile } from '@sphalerite/core/files';
import { type DeliveryProfile, type ReadyDelivery, deliveriesOf, isChanged } from '@sphalerite/core/model';
import { addDeliveryEdit, deleteDeliveryEdit, setDeliveryEdit } from '@sphalerite/core/project';
import { type Component, computed } from 'vue';
import BinList from '../../components/BinList.vue';
import CheckField from '../../components/CheckField.vue';
import MenuButton from '../../components/MenuButton.vue';
import TreeView from '../../components/TreeView.vue';
import type { MenuItem } from '../../components/menu';
import { takeFiles } from '../../shell/files/dispatcher';
import { download } from '../../shell/files/exporting';
import { useDelivery } from '../../stores/delivery';
import { useSession } from '../../stores/session';
import { useShip } from './ship-state';

const session = useSession();
const delivery = useDelivery();
const ship = useShip();
const ICONS: Readonly<Record<ReadyDelivery, Component>> = {
  phone: IconDeviceMobile,
  desktop: IconDeviceDesktop,
  headset: IconBadgeVr,
  print: IconPrinter,
};
const FORMATS = EXPORTERS.filter(shipsModels);
const rows = computed(() => (session.project ? deliveriesOf(session.project) : []));
const keyOf = (p: DeliveryProfile): string => p.ready ?? p.id;
const profileOf = (id: string): DeliveryProfile => rows.value.find((p) => keyOf(p) === id)!;
const iconOf = (id: string): Component => ICONS[id as ReadyDelivery] ?? IconPackageExport;
const short = (id: string): string =>
  FORMATS.find((e) => e.id === id)
    ?.extensions[0].slice(1)
    .toUpperCase() ?? id;
function facts(p: DeliveryProfile): string {
  const formats = p.formats.map(short).join(' + ') || 'nothing yet';
  const counted = ship.counts['triangles'];
  if (p === ship.profile && counted !== undefined) return `${formats} · ${counted.toLocaleString('en')} tris`;
  if (isChanged(p)) return `${formats} · changed here`;
  return p.formats.some((f) => f === 'stl' || f === '3mf') && p.print.height > 0
    ? `${formats} · ${p.print.height} mm`
    : formats;
}
const actions = (p: DeliveryProfile): MenuItem[] => [
  {
    text: 'Make another like it',
    run: () => session.apply(addDeliveryEdit, { name: p.name, from: keyOf(p) }),
  },
  { text: 'Save it as a file, to share', run: () => download([writeProfile(p)], 'application/json') },
  ...(p.ready === null
    ? [{ text: 'Delete', run: () => session.apply(deleteDeliveryEdit, { delivery: p.id }) }]
    : isChanged(p)
      ? [{ text: 'Back to as it came', run: () => session.apply(deleteDeliveryEdit, { delivery: p.id }) }]
      : []),
];
function pickFile(): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = PROFILE_ENDING;
  input.onchange = () => void takeFiles(input.files ?? []);
  input.click();
}
const ADD: MenuItem[] = [
  {
    text: 'New delivery like the one in hand',
    icon: IconPlus,
    run() {
      if (session.apply(addDeliveryEdit, { name: 'My delivery', from: delivery.chosen }))
        delivery.choose(session.project!.deliveryProfiles.at(-1)!.id);
    },
  },
  { text: 'From a shared file…', run: pickFile },
];
function tick(id: string, on: boolean): void {
  const now = ship.profile!.formats;
  // In the order of the list, so that the same choice is the same delivery.
  const wanted = new Set(on ? [...now, id] : now.filter((f) => f !== id));
  ship.change({ formats: FORMATS.map((e) => e.id).filter((f) => wanted.has(f)) });
}
const clips = computed(() => session.project?.clips.filter((c) => c.ships).length ?? 0);
const ways = computed(() => session.project?.colourways.length ?? 0);
</script>

<template>
  <div v-if="session.project && ship.profile" class="deliveries">
    <div class="panel-head tray-head">
      <h2>
        Deliveries <span class="figures quiet">{{ rows.length }}</span>
      </h2>
      <menu-button :items="ADD" label="Add a delivery" :icon="IconPlus" />
    </div>
    <tree-view
      :rows="rows.map((p) => ({ id: keyOf(p), name: p.name }))"
      label="Deliveries"
      :size="46"
      :hand="ship.profile.ready ?? ship.profile.id"
      :chosen="[ship.profile.ready ?? ship.profile.id]"
      :can-rename="session.writable"
      @pick="(id) => delivery.choose(id)"
      @rename="(id, name) => session.apply(setDeliveryEdit, { delivery: id, change: { name } })"
    >
      <template #picture="{ row }"><component :is="iconOf(row.id)" class="picture" aria-hidden="true" /></template>
      <template #name="{ row }"
        ><span class="text"
          ><span class="tree-name">{{ row.name }}</span
          ><small class="quiet">{{ facts(profileOf(row.id)) }}</small></span
        ></template
      >
      <template #acts="{ row }"
        ><menu-button :items="actions(profileOf(row.id))" :label="`What to do with ${row.name}`" :icon="IconDots"
      /></template>
    </tree-view>
    <section class="panel-section">
      <h3>In this delivery</h3>
      <check-field
        v-for="e in FORMATS"
        :key="e.id"
        class="format"
        :model-value="ship.profile.formats.includes(e.id)"
        :tip="e.about"
        @change="(on) => tick(e.id, on)"
        >{{ e.name }} <span class="quiet">{{ short(e.id) }}</span></check-field
      >
      <h3>Going along</h3>
      <check-field
        :model-value="ship.profile.looks.clips"
        tip="An animation for each clip that goes into files"
        @change="(on) => ship.change({ looks: { clips: on } })"
        >Clips <span class="figures quiet">{{ clips }}</span></check-field
      >
      <check-field
        :model-value="ship.profile.collider.shape !== 'none'"
        tip="What things bump into"
        @change="(on) => ship.change({ collider: { shape: on ? 'boxes' : 'none' } })"
        >Collider</check-field
      >
      <check-field
        :model-value="ship.profile.looks.colourways !== 'none'"
        tip="Other colours of the same shapes, as variants of one file"
        @change="(on) => ship.change({ looks: { colourways: on ? 'variants' : 'none' } })"
        >Colourways <span class="figures quiet">{{ ways }}</span></check-field
      >
    </section>
    <BinList kind="delivery profile" />
  </div>
</template>

<style scoped>
.picture {
  flex: none;
  width: 22px;
  height: 22px;
  stroke-width: 1.5;
  color: var(--resin);
}
.text {
  display: grid;
  text-align: left;
  min-width: 0;
}
.format {
  display: flex;
}
h3 {
  margin: 4px 0 2px;
}
</style>
