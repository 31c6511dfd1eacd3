import { VISIONS } from '@sphalerite/core/palette';
import { defineStore } from 'pinia';
import { reactive, watch } from 'vue';
import * as z from 'zod';
import { SHARPNESS } from '../viewport/sharpness';
import { setOwnKeys } from './commands';
import { getSetting, putSetting } from '../storage/settings-store';

const percent = (fallback: number) => z.number().min(0).max(100).catch(fallback);
const on = z.boolean().catch(true),
  off = z.boolean().catch(false);
/** How the rest of the figure stands around the part on the bench. */
export const NEIGHBOURS = ['faint', 'coloured', 'hidden'] as const;
export const BONE_LOOKS = ['shown', 'dimmed', 'hidden'] as const;
/** What comes after a choice when one goes through them; the first after the last. */
export const nextOf = <T>(choices: readonly T[], now: T): T => choices[(choices.indexOf(now) + 1) % choices.length]!;
/** Whatever is stored, each setting it leaves open or garbled is as it comes. */
export const settingsSchema = z.object({
  theme: z.enum(['system', 'daylight', 'dusk']).catch('system'),
  /** Widths and heights of the workbench in percent of the window. */
  tray: percent(16.6),
  properties: percent(18.8),
  bench: z.record(z.string(), z.number().min(0).max(100)).catch({}),
  sidesFolded: off,
  coachDone: off,
  /** Commands that were looked for of late, the newest first. */
  recent: z.array(z.string().max(80)).max(40).catch([]),
  /** Shortcuts of one's own, by command. */
  keys: z.record(z.string().max(80), z.array(z.string().max(40)).max(4)).catch({}),
  /** Cards "How this step goes" that were closed for good. */
  closedCards: z.array(z.string()).catch([]),
  // Lines were once only on or off.
  edges: z.preprocess(
    (v) => (typeof v === 'boolean' ? (v ? 'cubes' : 'none') : v),
    z.enum(['none', 'cubes', 'colours']).catch('cubes'),
  ),
  lit: on,
  glow: on,
  /** What stands behind the cubes: the theme's own calm gradient, or a plain tone. */
  backdrop: z.enum(['theme', 'light', 'grey', 'dark']).catch('theme'),
  figure: z.enum(['none', 'adult', 'child', 'door', 'metre']).catch('none'),
  // Neighbours were once only on or off.
  neighbours: z.preprocess(
    (n) => (typeof n === 'boolean' ? (n ? 'faint' : 'hidden') : n),
    z.enum(NEIGHBOURS).catch('faint'),
  ),
  grid: on,
  /** Whether the pivot of the part on the bench is drawn. */
  pivot: on,
  /** How bones, and controls that steer them, are drawn over the figure. */
  bones: z.enum(BONE_LOOKS).catch('shown'),
  controls: z.enum(BONE_LOOKS).catch('shown'),
  /** Whether the tree of bones shows what hangs on them. */
  partsOnBones: on,
  shadows: on,
  /** Whether a traced picture of what the view shows stands beside it. */
  inset: off,
  /** Pixels drawn for each of the screen's: all that the screen has, one, or a quarter of one on slow machines. */
  sharpness: z.enum(SHARPNESS).catch('fine'),
  /** How the view is looked at, to check colours. A check one forgot would make everything look wrong. */
  vision: z.enum(VISIONS).catch('all'),
  /** Swatches are listed by name, with counts. */
  swatchNames: off,
  /** What is folded open under its title, where that was changed. */
  folds: z.record(z.string(), z.boolean()).catch({}),
  /** How the parts tray shows parts: picture and name, names alone, or pictures alone. */
  partsAs: z.enum(['both', 'names', 'pictures']).catch('both'),
});
const storedSettings = z.preprocess((v) => (typeof v === 'object' && v !== null ? v : {}), settingsSchema);
export type Settings = z.output<typeof settingsSchema>;

/** Choices that belong to the person, kept in the browser. */
export const useSettings = defineStore('settings', () => {
  const settings = reactive<Settings>(settingsSchema.parse({}));
  let loaded = false;
  const dark = matchMedia('(prefers-color-scheme: dark)');
  const show = (): void => {
    const dusk = settings.theme === 'dusk' || (settings.theme === 'system' && dark.matches);
    document.documentElement.dataset['theme'] = dusk ? 'dusk' : 'daylight';
    document.documentElement.classList.toggle('dark', dusk);
    document.documentElement.dataset['vision'] = settings.vision;
    setOwnKeys(settings.keys);
  };
  dark.addEventListener('change', show);
  async function load(): Promise<void> {
    Object.assign(settings, await getSetting('settings', storedSettings));
    loaded = true;
    show();
  }
  watch(settings, () => {
    show();
    if (loaded) void putSetting('settings', JSON.parse(JSON.stringify(settings)));
  });
  return { settings, load };
});
