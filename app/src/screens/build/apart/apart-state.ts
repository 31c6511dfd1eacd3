import { type TwinPair, findTwins, makeTwinsEdit } from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useSession } from '../../../stores/session';
import { useColours } from '../colours/colours-state';
import { useApartView } from './apart-view';
import { useRegionChoice } from './region-choice';
import { useRegionPainting } from './region-painting';
import { useRegionProposals } from './region-proposals';
import { useTakingApart } from './taking-apart';

/** The regions of the part on the bench, and how it is taken apart by them. */
export const useApart = defineStore('apart', () => {
  const session = useSession();
  const colours = useColours();
  const active = computed(() => colours.tab === 'apart');
  const choice = useRegionChoice();
  const taking = useTakingApart(choice, active);
  /** Pairs of parts of which one could be the mirror image of the other. */
  const pairs = computed<TwinPair[]>(() => (active.value && session.project ? findTwins(session.project) : []));
  function twin(list: readonly TwinPair[]): void {
    session.apply(makeTwinsEdit, {
      pairs: list.map((p) => ({ part: p.other.id, source: p.source.id, axis: p.twin.axis, plane: p.twin.plane })),
    });
  }
  const { hand, hovered, painting, regions, cells, free, earlier, whole, add, change, drop } = choice;
  const { plug, clearance, socket, bones, keepWhole, gaps, worst, workOnWhole, take } = taking;
  return {
    active,
    hand,
    hovered,
    painting,
    regions,
    cells,
    free,
    earlier,
    whole,
    add,
    change,
    drop,
    plug,
    clearance,
    socket,
    bones,
    keepWhole,
    gaps,
    worst,
    workOnWhole,
    take,
    pairs,
    twin,
    ...useRegionProposals(choice),
    ...useRegionPainting(choice, active),
    ...useApartView(choice, taking, pairs, active),
  };
});
