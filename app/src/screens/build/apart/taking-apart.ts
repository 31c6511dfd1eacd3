import { type Part, type Project, composite } from '@sphalerite/core/model';
import { piecesOf, setPartHiddenEdit, takeApartEdit } from '@sphalerite/core/project';
import { plugOf, swingGap } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { type Ref, computed, ref } from 'vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { type RegionChoice, nameOfRest } from './region-choice';

/** Degrees to both sides within which a joint should not gape. */
const SWING = 40;
/** Cubes above which taking apart would be felt on the page. */
const LARGE = 100_000;
/** Cubes up to which joints are swung to see whether they gape. */
const SWUNG = 20_000;

/** How a whole is taken apart by its regions, and what its joints would look like. */
export function useTakingApart({ part, regions, earlier, whole }: RegionChoice, active: Ref<boolean>) {
  const session = useSession();
  const build = useBuild();
  const plug = ref(1);
  const clearance = ref(0);
  const socket = ref(false);
  const bones = ref(true);
  const keepWhole = ref(true);

  const pieces = computed(() =>
    part.value && active.value && regions.value.length > 0 ? piecesOf(part.value, nameOfRest(part.value.name)) : null,
  );
  /** How much of each joint would gape, 0–1, as the plug is set now; the worst of turns about X and Z. */
  const gaps = computed(() => {
    const p = pieces.value,
      seen = part.value && composite(part.value);
    if (!p || !seen || seen.count > SWUNG) return null;
    return p.pieces.map(({ region, cells }, i) => {
      if (p.parent[i]! < 0) return { region, share: 0 };
      const body = p.pieces[p.parent[i]!]!.cells;
      const plugged = plugOf(seen, cells, body, plug.value, clearance.value).map(([c]) => c);
      const limb = cells.union(CellSet.ofCells(plugged));
      const gape = (axis: 0 | 2): number => swingGap(cells, limb, body, p.pivots[i]!, axis, SWING);
      return { region, share: Math.max(gape(0), gape(2)) };
    });
  });
  const worst = computed(() => gaps.value?.reduce((a, b) => (b.share > a.share ? b : a)) ?? null);

  /** Puts the whole on the bench alone, to change it and take it apart again. */
  function workOnWhole(): void {
    const of = whole.value;
    if (!of) return;
    const choice = { part: of.id, layer: null };
    if (of.hidden) session.apply(setPartHiddenEdit, { part: of.id, hidden: false }, () => choice);
    else session.choose(choice);
    build.isolate = true;
  }
  function take(of: Part | null = part.value): void {
    if (!of) return;
    if (of === part.value && earlier.value.length > 0) build.isolate = false;
    const args = {
      part: of.id,
      rest: nameOfRest(of.name),
      plug: plug.value,
      clearance: clearance.value,
      socket: socket.value,
      bones: bones.value,
      keepWhole: keepWhole.value,
    };
    /** The rest goes on the bench, else the first piece. */
    const choosing = (p: Project): { part: string | null; layer: null } => {
      const taken = p.parts.filter((o) => o.origin?.whole === of.id);
      return { part: (taken.find((o) => o.origin?.region === 0) ?? taken[0])?.id ?? null, layer: null };
    };
    if (composite(of).count > LARGE) void session.applyInBackground(takeApartEdit, args, choosing);
    else session.apply(takeApartEdit, args, choosing);
  }
  return { plug, clearance, socket, bones, keepWhole, pieces, gaps, worst, workOnWhole, take };
}
export type TakingApart = ReturnType<typeof useTakingApart>;
