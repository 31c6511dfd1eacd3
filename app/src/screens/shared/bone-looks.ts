import { type Icon, IconBone, IconTarget } from '@tabler/icons-vue';
import type { Command } from '../../stores/commands';
import { BONE_LOOKS, nextOf, useSettings } from '../../stores/settings';

/** How bones and controls are drawn over the figure, for screens that show them. What is chosen is always shown. */
export const boneLookCommands = (): Command[] => [
  look('bones', 'Bones', 'Alt+I', IconBone),
  look('controls', 'Controls', 'Alt+Shift+I', IconTarget),
];

function look(what: 'bones' | 'controls', name: string, keys: string, icon: Icon): Command {
  const { settings } = useSettings();
  return {
    id: `${what}.look`,
    get title() {
      return `${name}: ${settings[what]}; make them ${nextOf(BONE_LOOKS, settings[what])}`;
    },
    group: 'View',
    keys: [keys],
    icon,
    on: () => settings[what] === 'shown',
    run: () => (settings[what] = nextOf(BONE_LOOKS, settings[what])),
  };
}
