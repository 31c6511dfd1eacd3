import { composite } from '@sphalerite/core/model';
import { type RegionShare, assignRegionEdit, handOverEdit } from '@sphalerite/core/project';
import { type StrokeVerb, columnsOf, splitByPlane, withUnder } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { type Ref, ref, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import { type StrokeTarget, useBuild } from '../build-state';
import { NO_CELLS, type RegionChoice, piece } from './region-choice';

/** The cells on one side of a mirror plane given in half cubes. */
function sideOf(set: CellSet, half: number, left: boolean): CellSet {
  const [low, high] = splitByPlane(set, 0, Math.floor(half / 2));
  return left ? high : low;
}

/** Strokes that give cubes to regions, or to the part beside, instead of changing them. */
export function useRegionPainting(choice: RegionChoice, active: Ref<boolean>) {
  const session = useSession();
  const build = useBuild();
  const view = useView();
  const { hand, painting, part, regions, cells, nextName, add } = choice;
  /** Whether what is erased goes to the part beside. */
  const giving = ref(false);

  /** What a stroke over these cells means: Paint and Add give them to the region in hand, Erase to the one beside. */
  function shares(set: CellSet, verb: StrokeVerb): RegionShare[] {
    const p = part.value;
    if (!p || hand.value === null) return [];
    const seen = composite(p),
      touched = withUnder(seen, set.intersect(CellSet.filled(seen)));
    if (verb === 'erase')
      return [{ cells: touched.intersect(cells.value.get(hand.value) ?? NO_CELLS), region: 'other' }];
    const region = regions.value.find((r) => r.byte === hand.value);
    const pair =
      region && region.side !== 'centre'
        ? regions.value.find((r) => r.name === region.name && r.side !== region.side && r.side !== 'centre')
        : undefined;
    // A mirrored stroke on a left piece is a stroke on its right one.
    const half = build.symmetry.mirror[0];
    const far = pair && half !== null ? sideOf(touched, half, pair.side === 'left') : NO_CELLS;
    const near = { cells: touched.minus(far), region: hand.value };
    return pair && !far.isEmpty ? [near, { cells: far, region: pair.byte }] : [near];
  }
  /** Without perspective and square on, a stroke means all that lies behind it: one sees a line where there is a row of cubes. */
  function through(set: CellSet): CellSet {
    const axis = view.viewport?.camera.square ?? null,
      box = part.value && (build.limit ?? part.value.bounds);
    return axis === null || !box ? set : columnsOf(set, axis, box);
  }
  const regionTarget: StrokeTarget = {
    text: 'strokes paint a piece, not colours',
    takes: () => true,
    tryOut: (set, verb) => {
      const list = shares(through(set), verb).filter((g) => !g.cells.isEmpty);
      return list.length > 0 ? session.tryEdit(assignRegionEdit, { part: part.value!.id, shares: list }, true) : null;
    },
    take: (set, verb) => {
      if (hand.value === null) {
        const seen = composite(part.value!);
        if (verb !== 'erase')
          add([piece(nextName(), withUnder(seen, through(set).intersect(CellSet.filled(seen))))], true);
        return;
      }
      session.apply(assignRegionEdit, { part: part.value!.id, shares: shares(through(set), verb) });
    },
  };
  /** What Erase takes from a part of a whole goes to the part beside it. */
  const besideTarget: StrokeTarget = {
    text: 'Erase gives cubes to the part beside',
    takes: (verb) => verb === 'erase',
    tryOut: (set) => session.tryEdit(handOverEdit, { part: part.value!.id, cells: set }, true),
    take: (set) => void session.apply(handOverEdit, { part: part.value!.id, cells: set }),
  };
  function stop(): void {
    painting.value = giving.value = false;
  }
  watch(() => session.hand.part, stop);
  watch(active, (on) => {
    if (!on) stop();
  });
  const follow = (on: Ref<boolean>, target: StrokeTarget): void => {
    watch(on, (now) => {
      if (now) build.strokeTarget = target;
      else if (build.strokeTarget === target) build.strokeTarget = null;
    });
  };
  follow(painting, regionTarget);
  follow(giving, besideTarget);
  watch(painting, (on) => {
    if (!on) hand.value = null;
  });
  watch(
    () => build.strokeTarget,
    (now) => {
      painting.value = now === regionTarget;
      giving.value = now === besideTarget;
    },
  );
  /** Takes a region in hand, to paint it; again, lets it go. */
  function paint(byte: number | null): void {
    const same = painting.value && hand.value === byte;
    hand.value = same ? null : byte;
    painting.value = !same;
    if (painting.value && build.card.verb === 'select') build.setVerb('paint');
  }
  return { giving, paint };
}
