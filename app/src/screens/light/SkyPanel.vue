<script setup lang="ts">
import { IconCloud, IconPhotoPlus } from '@tabler/icons-vue';
import { type SkyKind, find } from '@sphalerite/core/model';
import { skyPicture } from '@sphalerite/core/render';
import { useFileDialog } from '@vueuse/core';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import ColourField from '../../components/ColourField.vue';
import FormRow from '../../components/FormRow.vue';
import FigureSlide from './FigureSlide.vue';
import { SKY_NAMES } from './panel-words';
import { useShot } from './shot-in-hand';
import { SKY_TILES, tileOf } from './sky-tiles';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';

/** What surrounds everything: two colours, or one of the painted ones, by a tile of each. */
const hand = useShot();
const session = useSession();
const notices = useNotices();
const sky = computed(() => hand.shot!.light.sky);
const gradient = computed(() => `linear-gradient(${sky.value.zenith}, ${sky.value.horizon} 70%)`);
/** A picture of one's own as a tile. */
const own = computed(() => {
  const map = skyPicture(find(session.project!.blobs, sky.value.picture));
  return map && tileOf(map);
});
const { open, onChange } = useFileDialog({ accept: '.hdr', multiple: false, reset: true });
onChange(async (files) => {
  if (files) await (await import('../../shell/files/dispatcher')).takeFiles(files, 'surroundings').catch(notices.fail);
});
const pick = (kind: SkyKind): void => hand.light('sky', { kind });
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h2 class="with-icon"><IconCloud aria-hidden="true" />Surroundings</h2>
      <span class="quiet">{{ SKY_NAMES[sky.kind] }}</span>
    </div>
    <div class="tiles" role="group" aria-label="Surroundings">
      <action-button
        class="tile"
        look="bare"
        :on="sky.kind === 'gradient'"
        :tip="SKY_NAMES.gradient"
        :aria-label="SKY_NAMES.gradient"
        @click="pick('gradient')"
        ><i :style="{ background: gradient }" /></action-button
      ><action-button
        class="tile"
        look="bare"
        :on="sky.kind === 'picture'"
        :tip="sky.picture ? SKY_NAMES.picture : 'A picture of your own: a Radiance file (.hdr)'"
        :aria-label="SKY_NAMES.picture"
        @click="sky.picture && sky.kind !== 'picture' ? pick('picture') : open()"
        ><i v-if="own" :style="{ backgroundImage: `url(${own})` }" /><IconPhotoPlus
          v-else
          aria-hidden="true" /></action-button
      ><action-button
        v-for="t in SKY_TILES"
        :key="t.kind"
        class="tile"
        look="bare"
        :on="sky.kind === t.kind"
        :tip="SKY_NAMES[t.kind]"
        :aria-label="SKY_NAMES[t.kind]"
        @click="pick(t.kind)"
        ><i :style="{ backgroundImage: `url(${t.url})` }"
      /></action-button>
    </div>
    <FigureSlide
      label="light"
      name="Sky strength"
      :model-value="sky.strength"
      :min="0"
      :max="3"
      :step="0.05"
      @input="(strength) => hand.dragLight('sky', { strength })"
      @change="(strength) => hand.light('sky', { strength })"
    />
    <form-row v-if="sky.kind === 'gradient' || (sky.kind === 'picture' && !own)" label="Colours"
      ><span class="row"
        ><colour-field
          label="Colour overhead"
          tip="Overhead"
          :model-value="sky.zenith"
          @change="(zenith) => hand.light('sky', { zenith })" /><colour-field
          label="Colour of the horizon"
          tip="Horizon"
          :model-value="sky.horizon"
          @change="(horizon) => hand.light('sky', { horizon })" /></span
    ></form-row>
    <template v-else>
      <FigureSlide
        label="turned"
        name="Surroundings turned"
        :model-value="sky.turn"
        :min="-180"
        :max="180"
        :step="5"
        :told="`${sky.turn}°`"
        @input="(turn) => hand.dragLight('sky', { turn })"
        @change="(turn) => hand.light('sky', { turn })"
      />
      <check-field :model-value="sky.seen" @change="(seen) => hand.light('sky', { seen })">Seen behind</check-field>
    </template>
  </section>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: 5px;
}
.tile.el-button {
  height: 30px;
  padding: 0;
  margin: 0;
  border-radius: 5px;
}
.tile.el-button :deep(> span) {
  width: 100%;
  height: 100%;
}
.tile i {
  display: block;
  width: 100%;
  height: 30px;
  border-radius: 4px;
  border: 1px solid var(--line);
  background-size: cover;
  background-position: center;
}
.tile.on i,
.tile[aria-pressed='true'] i {
  outline: 2px solid var(--honey);
  outline-offset: 1px;
}
</style>
