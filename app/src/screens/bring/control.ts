import { IconCheck, IconScissors, IconX } from '@tabler/icons-vue';
import { composite } from '@sphalerite/core/model';
import { REST_POSE } from '@sphalerite/core/rig';
import { gather, listExtent } from '@sphalerite/core/scene';
import { computed } from 'vue';
import type { Chip, ScreenControl } from '../../shell/screen';
import { NO_OVERLAY } from '../../viewport/overlay';
import { useBringing } from './bring-state';

const figure = (n: number): string => n.toLocaleString('en');

export function bringControl(): ScreenControl {
  const bringing = useBringing();
  const list = computed(() => (bringing.made ? gather(bringing.made.project, { of: 'rig' }) : []));
  const nobody = (): void => undefined;
  return {
    scene: () => {
      const m = bringing.made;
      return m && { project: m.project, pose: REST_POSE, list: list.value, styleOf: () => 'plain' };
    },
    overlay: () => NO_OVERLAY,
    pointer: { down: () => false, move: nobody, up: nobody, leave: nobody, cancel: nobody },
    inHand: () => listExtent(list.value),
    trail: () => ['Bring in', bringing.file?.name ?? 'nothing'],
    chips: () => {
      const m = bringing.made;
      if (bringing.trouble) return [{ text: bringing.trouble, tone: 'red' }];
      if (!m) return [];
      const out: Chip[] = [];
      if (m.facts['blocks']?.[0] === 1)
        out.push({ text: 'enlarged pixels found: a cube a pixel', tone: 'green', icon: IconScissors });
      const [was, is] = m.facts['colours'] ?? [];
      if (was !== undefined && is !== undefined)
        out.push({
          text: was === is ? `its ${figure(is)} colours` : `${figure(is)} of ${figure(was)} colours`,
          tone: 'resin',
        });
      return out;
    },
    readout: () => {
      const m = bringing.made;
      if (!m) return { left: [], right: bringing.busy ? 'being made' : '' };
      const parts = m.project.parts,
        [w, h, d] = parts[0]!.bounds.size,
        cubes = parts.reduce((n, p) => n + composite(p).count, 0);
      const [pw, ph] = m.facts['pixels'] ?? [];
      return {
        left: [
          ['picture', `${figure(pw ?? 0)} × ${figure(ph ?? 0)}`],
          ['part', `${w} × ${h} × ${d}`],
          ['cubes', figure(cubes)],
          ['colours', figure(m.facts['colours']?.[1] ?? 0)],
        ],
        right: `made anew in ${Math.round(m.took)} ms · nothing is in the project yet`,
      };
    },
    commands: [
      {
        id: 'bring.take',
        title: 'Bring it in',
        group: 'Bring in',
        keys: ['Enter'],
        icon: IconCheck,
        enabled: () => (bringing.made ? true : 'nothing is made yet'),
        run: () => bringing.bring(),
      },
      {
        id: 'bring.cancel',
        title: 'Cancel',
        group: 'Bring in',
        keys: ['Esc'],
        icon: IconX,
        run: () => bringing.leave(),
      },
    ],
  };
}
