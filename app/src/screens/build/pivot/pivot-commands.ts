import { IconAnchor } from '@tabler/icons-vue';
import { type PivotPlace, pivotAt } from '@sphalerite/core/project';
import type { Command } from '../../../stores/commands';
import { all, needsPart, needsWriting } from '../../../stores/needs';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useSettings } from '../../../stores/settings';
import { useBuild } from '../build-state';
import { usePivot } from './pivot-state';

const PLACES: Record<PivotPlace, string> = {
  centre: 'Pivot to the centre of the cubes',
  base: 'Pivot to the centre of the base',
  floor: 'Pivot down to the floor',
  neighbour: 'Pivot to where the part touches its neighbour',
  cut: 'Pivot to the middle of the cut',
};

/** Where pivots of the parts that are chosen go, by hand or by themselves. */
export function pivotCommands(): Command[] {
  const session = useSession();
  const build = useBuild();
  const pivot = usePivot();
  const notices = useNotices();
  const { settings } = useSettings();
  const enabled = all(needsPart, needsWriting);
  function put(place: PivotPlace): void {
    try {
      pivot.move(
        session.view.chosen.part.map((part) => ({ part, pivot: pivotAt(session.project!, part, place) })),
        true,
      );
    } catch (e) {
      notices.fail(e);
    }
  }
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
      run: () => put(place as PivotPlace),
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
