import { IconBuildingWarehouse, IconMoonStars, IconSun } from '@tabler/icons-vue';
import { type SetUp, SET_UPS as READY } from '@sphalerite/core/render';
import type { Component } from 'vue';

const ICONS: Readonly<Record<SetUp['id'], Component>> = {
  day: IconSun,
  dusk: IconMoonStars,
  studio: IconBuildingWarehouse,
};
/** Ready light, each under the id of its command. */
export const SET_UPS = READY.map((s) => ({ ...s, id: `light.${s.id}`, icon: ICONS[s.id] }));
