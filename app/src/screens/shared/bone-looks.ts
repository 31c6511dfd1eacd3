import { IconBone, IconTarget } from '@tabler/icons-vue';
import type { Command } from '../../stores/commands';
import { type BONE_LOOKS, useSettings } from '../../stores/settings';

const NEXT = { shown: 'dimmed', dimmed: 'hidden', hidden: 'shown' } as const satisfies Record<
  (typeof BONE_LOOKS)[number],
  (typeof BONE_LOOKS)[number]
>;

/** How bones and controls are drawn over the figure, for screens that show them. What is chosen is always shown. */
export function boneLookCommands(): Command[] {
  const { settings } = useSettings();
  return [
    {
      id: 'bones.look',
      get title() {
        return `Bones: ${settings.bones}; make them ${NEXT[settings.bones]}`;
      },
      group: 'View',
      keys: ['Alt+I'],
      icon: IconBone,
      on: () => settings.bones === 'shown',
      run: () => (settings.bones = NEXT[settings.bones]),
    },
    {
      id: 'controls.look',
      get title() {
        return `Controls: ${settings.controls}; make them ${NEXT[settings.controls]}`;
      },
      group: 'View',
      keys: ['Alt+Shift+I'],
      icon: IconTarget,
      on: () => settings.controls === 'shown',
      run: () => (settings.controls = NEXT[settings.controls]),
    },
  ];
}
