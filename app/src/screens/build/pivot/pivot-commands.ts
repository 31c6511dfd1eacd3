import { IconAnchor } from '@tabler/icons-vue';
import type { PivotPlace } from '@sphalerite/core/project';
import { afterFirstPicture } from '../../../components/later';
import type { Command } from '../../../stores/commands';
import { all, needsPart, needsWriting } from '../../../stores/needs';
import { useSettings } from '../../../stores/settings';
import { useBuild } from '../build-state';

const PLACES: Record<PivotPlace, string> = {
  centre: 'Pivot to the centre of the cubes',
  base: 'Pivot to the centre of the base',
  floor: 'Pivot down to the floor',
  neighbour: 'Pivot to where the part touches its neighbour',
  cut: 'Pivot to the middle of the cut',
};

/** Where pivots of the parts that are chosen go, by hand or by themselves. */
export function pivotCommands(): Command[] {
  const build = useBuild();
  const { settings } = useSettings();
  const enabled = all(needsPart, needsWriting);
  return [
    {
      id: 'pivot.handles',
      title: 'Handles on the pivot',
      group: 'Parts',
      keys: ['J'],
      icon: IconAnchor,
      enabled,
      on: () => build.handles === 'pivot',
      run() {
        build.handles = build.handles === 'pivot' ? null : 'pivot';
        if (build.handles) settings.pivot = true;
      },
    },
    ...Object.entries(PLACES).map(([place, title]): Command => ({
      id: `pivot.${place}`,
      title,
      group: 'Parts',
      enabled,
      run: () => afterFirstPicture(async () => (await import('./pivot-places')).putPivots(place as PivotPlace)),
    })),
    {
      id: 'pivot.show',
      title: 'Show or hide the pivot',
      group: 'Parts',
      on: () => settings.pivot,
      run: () => (settings.pivot = !settings.pivot),
    },
  ];
}
