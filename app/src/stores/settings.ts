import { VISIONS, type Vision } from '@sphalerite/core/palette';
import { defineStore } from 'pinia';
import { reactive, watch } from 'vue';
import { getSetting, putSetting } from '../storage/settings-store';

export interface Settings {
  theme: 'system' | 'daylight' | 'dusk';
  /** Widths and heights of the workbench in percent of the window. */
  tray: number;
  properties: number;
  bench: Record<string, number>;
  sidesFolded: boolean;
  coachDone: boolean;
  /** Cards "How this step goes" that were closed for good. */
  closedCards: string[];
  edges: 'none' | 'cubes' | 'colours';
  lit: boolean;
  glow: boolean;
  /** What stands behind the cubes: the theme's own calm gradient, or a plain tone. */
  backdrop: 'theme' | 'light' | 'grey' | 'dark';
  figure: 'none' | 'adult' | 'child' | 'door' | 'metre';
  neighbours: boolean;
  grid: boolean;
  shadows: boolean;
  /** How the view is looked at, to check colours. */
  vision: Vision;
  /** Swatches are listed by name, with counts. */
  swatchNames: boolean;
  /** How the parts tray shows parts: picture and name, names alone, or pictures alone. */
  partsAs: 'both' | 'names' | 'pictures';
}
const DEFAULTS: Settings = {
  theme: 'system',
  tray: 16.6,
  properties: 18.8,
  bench: {},
  sidesFolded: false,
  coachDone: false,
  closedCards: [],
  edges: 'cubes',
  lit: true,
  glow: true,
  figure: 'none',
  backdrop: 'theme',
  neighbours: true,
  grid: true,
  shadows: true,
  vision: 'all',
  swatchNames: false,
  partsAs: 'both',
};

/** Choices that belong to the person, kept in the browser. */
export const useSettings = defineStore('settings', () => {
  const settings = reactive<Settings>({ ...DEFAULTS });
  let loaded = false;
  const dark = matchMedia('(prefers-color-scheme: dark)');
  const show = (): void => {
    const dusk = settings.theme === 'dusk' || (settings.theme === 'system' && dark.matches);
    document.documentElement.dataset['theme'] = dusk ? 'dusk' : 'daylight';
    document.documentElement.classList.toggle('dark', dusk);
    document.documentElement.dataset['vision'] = settings.vision;
  };
  dark.addEventListener('change', show);
  async function load(): Promise<void> {
    const stored = await getSetting<Partial<Omit<Settings, 'edges'>> & { edges?: Settings['edges'] | boolean }>(
      'settings',
      {},
    );
    // Lines were once only on or off.
    const edges =
      typeof stored.edges === 'boolean' ? (stored.edges ? 'cubes' : 'none') : (stored.edges ?? DEFAULTS.edges);
    Object.assign(settings, stored, { edges });
    // A check one forgot would make everything look wrong.
    if (!VISIONS.includes(settings.vision)) settings.vision = 'all';
    loaded = true;
    show();
  }
  watch(settings, () => {
    show();
    if (loaded) void putSetting('settings', JSON.parse(JSON.stringify(settings)));
  });
  return { settings, load };
});
