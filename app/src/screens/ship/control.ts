import {
  IconBox,
  IconBrush,
  IconDownload,
  IconGridDots,
  IconLayersSubtract,
  IconPhoto,
  IconPlayerPlay,
  IconTriangle,
  IconWaveSawTool,
} from '@tabler/icons-vue';
import { REST_POSE } from '@sphalerite/core/rig';
import { gather } from '@sphalerite/core/scene';
import { type Component, watch } from 'vue';
import type { Chip, ScreenControl } from '../../shell/screen';
import type { Command } from '../../stores/commands';
import { needsProject } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { extentOf } from '../../stores/ship-counts';
import type { ArrivedLook } from '../../viewport/arrived';
import { NO_OVERLAY } from '../../viewport/overlay';
import { figureBeside } from '../shared/scale-figure';
import { useFacePicking } from './face-picking';
import { useLinkedFolder } from './linked-folder';
import { useLooking } from './looking';
import { useShip } from './ship-state';

const LOOKS: readonly (readonly [ArrivedLook, string, Component])[] = [
  ['wire', 'Wireframe of the file', IconTriangle],
  ['normals', 'Normals of the file', IconWaveSawTool],
  ['slots', 'Material slots of the file', IconLayersSubtract],
  ['texture', 'Texture without light', IconPhoto],
  ['second', 'Second coordinates, for baked light', IconGridDots],
];

export function shipControl(): ScreenControl {
  const session = useSession();
  const ship = useShip();
  const looking = useLooking();
  const folder = useLinkedFolder();
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
  const look = (id: ArrivedLook): void => void (looking.look = looking.look === id ? 'plain' : id);
  const showsFile = (): boolean => looking.arrived !== null;

  const looks = LOOKS.map(([id, title, icon]): Command => ({
    id: `ship.look.${id}`,
    title,
    group: 'Ship',
    icon,
    on: () => looking.look === id,
    enabled: () =>
      !showsFile()
        ? 'There is no file to look at yet'
        : id !== 'second' || looking.facts!.second || 'This delivery has no second set of coordinates',
    run: () => look(id),
  }));
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
          list: gather(project, { of: 'rig' }),
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
    chips: () => chips(),
    readout: () => {
      const c = ship.counts;
      const shown = (key: string, name: string, before?: number): [string, string][] =>
        c[key] === undefined
          ? []
          : [[name, before === undefined ? figure(c[key]!) : `${figure(before)} → ${figure(c[key]!)}`]];
      return {
        left: [
          ...shown('triangles', 'triangles', c['faces'] === undefined ? undefined : c['faces'] * 2),
          ...shown('vertices', 'vertices', c['faces'] === undefined ? undefined : c['faces'] * 4),
          ...shown('texels', 'texture'),
          ...shown('draws', 'draws'),
          ...shown('colliders', 'colliders'),
          ...shown('cubes', 'cubes'),
        ],
        right: ship.made
          ? `${figure(Math.ceil(ship.bytes / 1024))} KB · ${ship.made.delivered.files.length} ${ship.made.delivered.files.length === 1 ? 'file' : 'files'}`
          : '',
      };
    },
    tools: [...looks.map((l) => l.id), 'ship.look.collider', 'ship.play'],
    commands: [
      {
        id: 'ship.save',
        get title() {
          return folder.at > 0 ? 'Ship it again' : 'Ship it';
        },
        group: 'Ship',
        keys: ['E'],
        icon: IconDownload,
        enabled: needsProject,
        run: () => (folder.handle ? folder.shipInto() : ship.save()),
      },
      ...looks,
      {
        id: 'ship.look.collider',
        title: 'Colliders over the file',
        group: 'Ship',
        icon: IconBox,
        on: () => looking.colliders,
        enabled: () => showsFile() || 'There is no file to look at yet',
        run: () => void (looking.colliders = !looking.colliders),
      },
      {
        id: 'ship.play',
        title: 'Play the next clip of the file',
        group: 'Ship',
        keys: ['Space'],
        icon: IconPlayerPlay,
        on: () => looking.playing,
        enabled: () => (looking.facts?.clips.length ?? 0) > 0 || 'This file has no clips',
        run: () => {
          const names = looking.facts!.clips.map((c) => c.name);
          looking.play(names[names.indexOf(looking.clip ?? '') + 1] ?? null);
        },
      },
      {
        id: 'ship.pickFaces',
        title: 'Pick faces for a slot',
        group: 'Ship',
        icon: IconBrush,
        enabled: needsProject,
        on: () => picking.on,
        run: () => void (picking.on = !picking.on),
      },
    ],
    dispose() {
      picking.on = false;
      clearTimeout(timer);
      stopMaking();
      stopLooking();
    },
  };

  function chips(): Chip[] {
    const p = ship.profile;
    if (!p) return [];
    if (picking.on)
      return [
        {
          text: picking.away ? 'giving faces back' : `picking faces for “${picking.slot}”`,
          tone: picking.away ? 'red' : 'green',
          icon: IconBrush,
          does: 'done',
          run: () => void (picking.on = false),
        },
        ...(picking.lit?.slot ? [{ text: `of “${picking.lit.slot}”`, tone: 'resin' as const }] : []),
      ];
    const { collider, place } = p,
      n = looking.facts?.colliders ?? 0;
    const out: Chip[] = [];
    if (collider.shape !== 'none' && n > 0)
      out.push({ text: `${n} ${n === 1 ? 'collider' : 'colliders'}, ${collider.moves}`, tone: 'green', icon: IconBox });
    out.push({ text: `${place.up.toUpperCase()} up, faces ${place.forward.toUpperCase()}`, tone: 'resin' });
    const e = looking.arrived?.extent;
    if (e && session.project)
      out.push({
        text: `${((e.hi[1] - e.lo[1]) * session.project.metresPerUnit).toFixed(2)} m beside a metre`,
        tone: 'resin',
      });
    if (looking.look === 'slots')
      for (const s of looking.facts?.slots ?? []) out.push({ text: s.name, tone: 'resin', colour: s.colour });
    if (looking.clip)
      out.push({
        text: looking.clip,
        tone: 'green',
        icon: IconPlayerPlay,
        does: 'rest',
        run: () => looking.play(null),
      });
    return out;
  }
}
