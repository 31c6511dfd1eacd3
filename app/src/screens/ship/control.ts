import { REST_POSE } from '@sphalerite/core/rig';
import { gather } from '@sphalerite/core/scene';
import { watch } from 'vue';
import type { ScreenControl } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { extentOf } from '../../stores/ship-counts';
import { NO_OVERLAY } from '../../viewport/overlay';
import { figureBeside } from '../shared/scale-figure';
import { useFacePicking } from './face-picking';
import { useLooking } from './looking';
import { shipChips } from './ship-chips';
import { shipCommands } from './ship-commands';
import { useShip } from './ship-state';

export function shipControl(): ScreenControl {
  const session = useSession();
  const ship = useShip();
  const looking = useLooking();
  const picking = useFacePicking();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const stopMaking = watch(
    // Only while this screen is open: elsewhere nobody waits for files.
    [() => session.project, () => ship.key],
    () => {
      clearTimeout(timer);
      // Options come in bursts.
      timer = setTimeout(() => void ship.make(), 120);
    },
    { immediate: true },
  );
  const stopLooking = looking.open();
  const figure = (n: number): string => n.toLocaleString('en');
  const commands = shipCommands();
  return {
    scene: () => {
      const project = session.inActiveColourway;
      // Read for its own sake: shadows fall anew when the file looks otherwise.
      void looking.tick;
      const arrived = looking.arrived !== null && !picking.on;
      return (
        project && {
          project,
          pose: REST_POSE,
          list: gather(
            project,
            ship.subject.of === 'scene' ? { of: 'scene', scene: ship.subject.scene } : { of: 'rig' },
          ),
          styleOf: arrived ? () => null : () => 'plain',
        }
      );
    },
    overlay: () => {
      const p = session.project;
      if (picking.on) {
        const { lit } = picking;
        return lit ? { ...NO_OVERLAY, lattice: lit.lattice, faces: lit.faces, erasing: picking.away } : NO_OVERLAY;
      }
      if (!p || !looking.arrived) return NO_OVERLAY;
      void looking.tick;
      return {
        ...NO_OVERLAY,
        arrived: looking.arrived.group,
        figure: figureBeside('adult', looking.arrived.beforeIt(1 / p.metresPerUnit) ?? extentOf(p), p.metresPerUnit),
      };
    },
    labels: () => {
      const p = session.project,
        cube = p && !picking.on && looking.arrived?.metreCube(1 / p.metresPerUnit);
      if (!cube) return [];
      const [x, y, z] = [0, 1, 2].map((a) => cube.min[a]! + cube.size[a]! / 2) as [number, number, number];
      return [{ at: [x, y, z], text: '1 m', tone: 'ink' }];
    },
    inHand: () => looking.arrived?.extent ?? null,
    pointer: {
      down: (p) => picking.on && picking.pointer.down(p),
      move: (p, settle) => picking.on && picking.pointer.move(p, settle),
      up: (p) => picking.pointer.up(p),
      leave: () => picking.pointer.leave(),
      cancel: () => picking.pointer.cancel(),
    },
    trail: () => [
      session.project?.name ?? '',
      ship.profile?.name.toLowerCase() ?? '',
      picking.on ? `faces for “${picking.slot}”` : 'as it arrives',
    ],
    chips: shipChips,
    readout: () => {
      const c = ship.counts;
      const shown = (key: string, name: string, before?: number): [string, string][] =>
        c[key] === undefined
          ? []
          : [[name, before === undefined ? figure(c[key]!) : `${figure(before)} → ${figure(c[key]!)}`]];
      const kilobytes = (of: typeof c): [string, string][] =>
        of['geometry'] === undefined
          ? []
          : [
              [
                'mesh',
                `${figure(Math.ceil(of['geometryApart']! / 1024))} → ${figure(Math.ceil(of['geometry'] / 1024))} KB`,
              ],
            ];
      return {
        left: [
          ...shown('triangles', 'triangles', c['faces'] === undefined ? undefined : c['faces'] * 2),
          ...shown('vertices', 'vertices', c['faces'] === undefined ? undefined : c['faces'] * 4),
          ...shown('draws', 'draws', c['apart']),
          ...shown('texels', 'texture', c['texelsApart'] === c['texels'] ? undefined : c['texelsApart']),
          ...kilobytes(c),
          ...shown('cubes', 'cubes'),
        ],
        right: ship.made
          ? `${figure(Math.ceil(ship.bytes / 1024))} KB · ${ship.made.delivered.files.length} ${ship.made.delivered.files.length === 1 ? 'file' : 'files'}`
          : '',
      };
    },
    tools: commands.map((c) => c.id).filter((id) => id.startsWith('ship.look') || id === 'ship.play'),
    commands,
    dispose() {
      picking.on = false;
      clearTimeout(timer);
      stopMaking();
      stopLooking();
    },
  };
}
