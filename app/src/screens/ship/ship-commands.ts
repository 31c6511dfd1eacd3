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
import type { Component } from 'vue';
import type { Command } from '../../stores/commands';
import { needsProject } from '../../stores/needs';
import type { ArrivedLook } from '../../viewport/arrived';
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

/** What is done in Ship. */
export function shipCommands(): Command[] {
  const ship = useShip();
  const looking = useLooking();
  const folder = useLinkedFolder();
  const picking = useFacePicking();
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
  return [
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
  ];
}
