import {
  IconChartHistogram,
  IconColumns2,
  IconFocus2,
  IconFrame,
  IconBarrierBlock,
  IconColorFilter,
  IconSunHigh,
  IconMarquee2,
} from '@tabler/icons-vue';
import type { Command } from '../../stores/commands';
import { all, need, needsShot, needsWriting } from '../../stores/needs';
import { useGuides } from './guides';
import { usePictures } from '../../shell/takes/pictures';
import { SET_UPS } from './set-ups';
import { useShot } from './shot-in-hand';

/** What a picture is judged by. */
export function judgingCommands(): Command[] {
  const guides = useGuides();
  const light = usePictures();
  const other = (): typeof light.current => light.pictures.find((p) => p.id !== light.current?.id) ?? null;
  return [
    {
      id: 'light.guides',
      title: 'Thirds and safe frame',
      group: 'Light',
      keys: ['Shift+G'],
      icon: IconFrame,
      on: () => guides.thirds,
      run: () => void (guides.thirds = !guides.thirds),
    },
    {
      id: 'light.histogram',
      title: 'Histogram',
      group: 'Light',
      icon: IconChartHistogram,
      on: () => guides.histogram,
      run: () => void (guides.histogram = !guides.histogram),
    },
    {
      id: 'light.zebra',
      title: 'Stripes where it is burnt out',
      group: 'Light',
      icon: IconBarrierBlock,
      on: () => guides.zebra,
      run: () => void (guides.zebra = !guides.zebra),
    },
    {
      id: 'light.sun',
      title: 'Turn the sun by dragging in the view',
      group: 'Light',
      keys: ['Shift+S'],
      icon: IconSunHigh,
      enabled: all(needsShot, needsWriting),
      on: () => guides.sunning,
      run: () => {
        light.current = null;
        guides.sunning = !guides.sunning;
      },
    },
    {
      id: 'light.before',
      title: 'As it was before grading',
      group: 'Light',
      keys: ['Shift+B'],
      icon: IconColorFilter,
      enabled: needsShot,
      on: () => guides.before,
      run: () => void (guides.before = !guides.before),
    },
    {
      id: 'light.region',
      title: 'Say by a drag what is traced first',
      group: 'Light',
      keys: ['Shift+R'],
      icon: IconMarquee2,
      enabled: needsShot,
      on: () => guides.regioning || guides.region !== null,
      run: () => {
        // Once more takes it away.
        guides.regioning = !guides.regioning && guides.region === null;
        guides.region = null;
      },
    },
    {
      id: 'light.compare',
      title: 'Compare with the picture before',
      group: 'Light',
      icon: IconColumns2,
      enabled: need(() => light.current !== null && other() !== null, 'two pictures are compared'),
      on: () => light.beside !== null,
      run: () => void (light.beside = light.beside ? null : other()),
    },
    {
      id: 'light.focus',
      title: 'Say by a click what is sharp',
      group: 'Light',
      icon: IconFocus2,
      enabled: all(needsShot, needsWriting),
      on: () => guides.focusing,
      run: () => {
        light.current = null;
        guides.focusing = !guides.focusing;
      },
    },
  ];
}

/** Ready light for whatever stands there. */
export function setUpCommands(): Command[] {
  const hand = useShot();
  return SET_UPS.map((s) => ({
    id: s.id,
    title: s.title,
    group: 'Light',
    icon: s.icon,
    enabled: all(needsShot, needsWriting),
    run: () => {
      const { shot } = hand;
      // A scene brings its own ground.
      if (shot)
        hand.change({ ...s.settings, ...(shot.scene === null ? { stage: { ...shot.stage, ground: s.ground } } : {}) });
    },
  }));
}
