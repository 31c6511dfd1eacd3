import { IconArrowsMaximize, IconArrowsMove, IconMarquee2, IconRotate3d } from '@tabler/icons-vue';
import type { Command } from '../../stores/commands';
import { needsScene } from '../../stores/needs';
import { useStage } from './stage-state';

/** What a drag in the view does with what is chosen. */
export function handleCommands(): Command[] {
  const stage = useStage();
  const of = (
    handle: typeof stage.handle,
    title: string,
    key: string,
    icon: NonNullable<Command['icon']>,
  ): Command => ({
    ...{ id: `stage.${handle}`, title, group: 'Stage', keys: [key], icon, enabled: needsScene },
    run: () => void (stage.handle = handle),
    on: () => stage.handle === handle,
  });
  return [
    of('move', 'Move by arrows, or push over the ground', 'J', IconArrowsMove),
    of('turn', 'Turn by rings', 'R', IconRotate3d),
    of('frame', 'Choose what lies in a frame', 'F', IconMarquee2),
    of('scale', 'Scale by pulling', 'W', IconArrowsMaximize),
  ];
}
