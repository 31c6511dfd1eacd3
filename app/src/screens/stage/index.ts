import { IconBuildingCommunity } from '@tabler/icons-vue';
import type { Screen } from '../../shell/screen';

export const stageScreen: Screen = {
  id: 'stage',
  title: 'Stage',
  icon: IconBuildingCommunity,
  count: (p) => p.scenes.reduce((n, s) => n + s.placements.reduce((m, g) => m + g.length, 0), 0),
  wants: () => null,
  benchSize: 25,
  help: {
    title: 'How Stage goes',
    steps: [
      'Click a piece below, then where it stands: on the floor, on a top, against a wall. Or draw a stroke of many.',
      'Push what stands there over the ground; Alt leaves a linked copy behind.',
      'Linked copies share one part: a change of it shows on all of them. “Own part” lets one go its own way.',
      'Row, ring, path and scatter stay open: their count and distance can always be changed.',
    ],
    lesson: {
      title: 'Give her a place',
      text: 'Click one of the pieces below, then click the floor. Everything placed from one part is a linked copy of it.',
    },
  },
  pieces: async () => (await import('./pieces')).pieces,
};
