<script setup lang="ts">
import { IconDoor, IconPlus, IconWindow, IconX } from '@tabler/icons-vue';
import type { Vec3 } from '@sphalerite/core/math';
import { type Doorway, type Room, type RoomSide, SIDES, doorFor } from '@sphalerite/core/sculpt';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import FormRow from '../../components/FormRow.vue';
import IconButton from '../../components/IconButton.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import TextField from '../../components/TextField.vue';
import { MAKING_NAMES, useMaking } from './making-state';

/** What is about to be made: its figures, and where it stands with a click in the view. */
const making = useMaking();
const swatches = computed(() => (making.palette?.swatches ?? []).map((s) => ({ value: s.byte, text: s.name })));
const AXES = ['wide', 'high', 'deep'] as const;
const size = (v: Vec3, a: number, to: number): Vec3 => v.map((o, i) => (i === a ? to : o)) as unknown as Vec3;
const wish = (change: Partial<Room>): void => void (making.room = { ...making.room, ...change });
const open = (side: RoomSide, on: boolean): void =>
  wish({ open: on ? [...making.room.open, side] : making.room.open.filter((s) => s !== side) });
/** Through the first wall that there is. */
function add(window: boolean): void {
  const side = SIDES.find((s) => !making.room.open.includes(s)) ?? 'back',
    door = doorFor(side, making.metres);
  const high = making.room.size[1];
  wish({
    doors: [
      ...making.room.doors,
      window
        ? { ...door, sill: Math.round(high / 3), height: Math.max(2, Math.round(high / 3)) }
        : { ...door, height: Math.min(door.height, high - 1) },
    ],
  });
}
const change = (i: number, to: Partial<Doorway>): void =>
  wish({ doors: making.room.doors.map((d, k) => (k === i ? { ...d, ...to } : d)) });
const layer = (i: number, to: { byte?: number; thick?: number }): void =>
  void (making.ground = {
    ...making.ground,
    layers: making.ground.layers.map((l, k) => (k === i ? { ...l, ...to } : l)),
  });
const metres = (cubes: number): string =>
  `${(cubes * making.metres).toLocaleString('en', { maximumFractionDigits: 2 })} m`;
</script>

<template>
  <section v-if="making.kind" :aria-label="`Make a ${making.kind}`">
    <div class="head">
      <h3>{{ MAKING_NAMES[making.kind] }}</h3>
      <span class="quiet">a click in the view moves it</span>
    </div>
    <form-row label="name"><text-field v-model="making.name" label="Name of what is made" /></form-row>
    <template v-if="making.kind === 'block' || making.kind === 'part'">
      <div class="three">
        <number-field
          v-for="(name, a) in AXES"
          :key="name"
          :label="name"
          unit="m"
          :step="0.1"
          :min="0.01"
          :model-value="making.block[a]!"
          @change="(v) => (making.block = size(making.block, a, v))"
        />
      </div>
      <form-row v-if="making.kind === 'block'" label="colour"
        ><select-field v-model="making.byte" label="Colour of the block" :choices="swatches"
      /></form-row>
    </template>
    <template v-else-if="making.kind === 'room'">
      <div class="three">
        <number-field
          v-for="(name, a) in AXES"
          :key="name"
          :label="name"
          :name="`Room, ${name} inside`"
          :min="1"
          :max="250"
          :model-value="making.room.size[a]!"
          @change="(v) => wish({ size: size(making.room.size, a, Math.round(v)) })"
        />
      </div>
      <p class="quiet figures">{{ making.room.size.map(metres).join(' × ') }}</p>
      <div class="three">
        <number-field
          v-for="k in ['wall', 'floor', 'ceiling'] as const"
          :key="k"
          :label="k"
          :name="`Thickness of the ${k}`"
          :min="k === 'wall' ? 1 : 0"
          :max="32"
          :model-value="making.room[k]"
          @change="(v) => wish({ [k]: Math.round(v) })"
        />
      </div>
      <form-row label="open">
        <span class="sides">
          <check-field
            v-for="s in SIDES"
            :key="s"
            :model-value="making.room.open.includes(s)"
            @change="(on) => open(s, on)"
            >{{ s }}</check-field
          >
        </span>
      </form-row>
      <div v-for="(d, i) in making.room.doors" :key="i" class="way">
        <select-field
          :label="`Wall of opening ${i + 1}`"
          :model-value="d.side"
          :choices="SIDES.map((s) => ({ value: s, text: s }))"
          @change="(side: RoomSide) => change(i, { side })"
        />
        <number-field
          v-for="k in ['width', 'height', 'sill', 'shift'] as const"
          :key="k"
          :label="k[0]!"
          :name="`Opening ${i + 1}: ${k}`"
          :model-value="d[k]"
          :min="k === 'shift' ? -250 : k === 'sill' ? 0 : 1"
          @change="(v) => change(i, { [k]: Math.round(v) })"
        />
        <icon-button
          :icon="IconX"
          :label="`No opening ${i + 1}`"
          tip="Close it"
          @click="wish({ doors: making.room.doors.toSpliced(i, 1) })"
        />
      </div>
      <div class="buttons">
        <action-button @click="add(false)"><IconDoor aria-hidden="true" />Door</action-button>
        <action-button @click="add(true)"><IconWindow aria-hidden="true" />Window</action-button>
      </div>
      <div class="two">
        <select-field
          label="Colour of the walls"
          :model-value="making.room.wallByte"
          :choices="swatches.map((s) => ({ ...s, text: `walls: ${s.text}` }))"
          @change="(wallByte: number) => wish({ wallByte })"
        />
        <select-field
          label="Colour of the floor"
          :model-value="making.room.floorByte"
          :choices="swatches.map((s) => ({ ...s, text: `floor: ${s.text}` }))"
          @change="(floorByte: number) => wish({ floorByte })"
        />
      </div>
    </template>
    <template v-else>
      <div class="two">
        <number-field
          v-for="k in ['wide', 'deep'] as const"
          :key="k"
          :label="k"
          :name="`Ground, ${k}`"
          :min="1"
          :max="4096"
          :model-value="making.ground[k]"
          @change="(v) => (making.ground = { ...making.ground, [k]: Math.round(v) })"
        />
      </div>
      <p class="quiet figures">{{ metres(making.ground.wide) }} × {{ metres(making.ground.deep) }}</p>
      <div v-for="(l, i) in making.ground.layers" :key="i" class="layer">
        <select-field
          :label="`Colour of layer ${i + 1}`"
          :model-value="l.byte"
          :choices="swatches"
          @change="(byte: number) => layer(i, { byte })"
        />
        <number-field
          label="thick"
          :name="`Thickness of layer ${i + 1}`"
          :min="1"
          :max="64"
          :model-value="l.thick"
          @change="(v) => layer(i, { thick: Math.round(v) })"
        />
        <icon-button
          v-if="making.ground.layers.length > 1"
          :icon="IconX"
          :label="`No layer ${i + 1}`"
          tip="Take it away"
          @click="making.ground = { ...making.ground, layers: making.ground.layers.toSpliced(i, 1) }"
        />
      </div>
      <action-button
        look="link"
        @click="
          making.ground = {
            ...making.ground,
            layers: [...making.ground.layers, { byte: swatches[0]?.value ?? 1, thick: 2 }],
          }
        "
        ><IconPlus aria-hidden="true" />one more layer below</action-button
      >
    </template>
    <div class="buttons">
      <action-button look="primary" @click="making.set()">{{
        making.kind === 'part' ? 'Make and build it' : 'Make it'
      }}</action-button>
      <action-button @click="making.end()">Cancel</action-button>
    </div>
  </section>
</template>

<style scoped>
section > * + * {
  margin-top: 5px;
}
.two,
.three {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
}
.three {
  grid-template-columns: repeat(3, minmax(0, 1fr));
}
.sides,
.buttons,
.layer,
.way {
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
}
.way,
.layer {
  flex-wrap: nowrap;
}
.way > *,
.layer > :first-child {
  min-width: 0;
  flex: 1;
}
.way > :last-child {
  flex: none;
}
</style>
