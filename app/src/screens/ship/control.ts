import { IconDownload } from '@tabler/icons-vue';
import { REST_POSE } from '@sphalerite/core/rig';
import { gather } from '@sphalerite/core/scene';
import { watch } from 'vue';
import type { ScreenControl } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { NO_OVERLAY } from '../../viewport/overlay';
import { useShip } from './ship-state';
import { needsProject } from '../../stores/needs';

export function shipControl(): ScreenControl {
  const session = useSession();
  const ship = useShip();
  const stop = watch(
    // Only while this screen is open: elsewhere nobody waits for files.
    [() => session.project, () => ship.order],
    () => void ship.make(),
    { immediate: true },
  );
  return {
    scene: () => {
      const project = session.inActiveColourway;
      return project && { project, pose: REST_POSE, list: gather(project, { of: 'rig' }) };
    },
    overlay: () => NO_OVERLAY,
    inHand: () => null,
    pointer: {
      down: () => false,
      move: () => undefined,
      up: () => undefined,
      leave: () => undefined,
      cancel: () => undefined,
    },
    trail: () => [session.project?.name ?? '', ship.exporter.name.toLowerCase()],
    chips: () => [],
    readout: () => ({
      left: [
        ...['triangles', 'vertices', 'swatches'].flatMap((k): [string, string][] => {
          const n = ship.made?.counts[k];
          return n === undefined ? [] : [[k, n.toLocaleString('en')]];
        }),
        ...(ship.made ? [['file', `${Math.ceil(ship.bytes / 1024)} KB`] as [string, string]] : []),
      ],
      right: '',
    }),
    commands: [
      {
        id: 'ship.save',
        get title() {
          return `Save the ${ship.exporter.noun}`;
        },
        group: 'Ship',
        keys: ['E'],
        icon: IconDownload,
        enabled: needsProject,
        run: () => ship.save(),
      },
    ],
    dispose: stop,
  };
}
