import { composite } from '@sphalerite/core/model';
import { families } from '@sphalerite/core/palette';
import { swapRegionsEdit } from '@sphalerite/core/project';
import {
  type NamedCells,
  awayFrom,
  mirrorShare,
  splitByColour,
  splitByPatches,
  splitByPieces,
  splitByPlane,
} from '@sphalerite/core/sculpt';
import { CellSet, connectedPieces, piecesSet } from '@sphalerite/core/voxel';
import { computed, ref, shallowRef } from 'vue';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { useColours } from '../colours/colours-state';
import { useSelection } from '../selection/selection-state';
import { NO_CELLS, type RegionChoice, piece } from './region-choice';
import { say } from '../../../words';

/** Regions proposed from what is there: the selection, loose pieces, colours, layers, the guide plane. */
export function useRegionProposals({ hand, part, regions, cells, free, nextName, add }: RegionChoice) {
  const session = useSession();
  const build = useBuild();
  const colours = useColours();
  const selection = useSelection();
  const notices = useNotices();
  /** Width and depth of the teeth of a cut; 0: a plain cut. */
  const teeth = ref(0);
  const lastCut = shallowRef<{ part: string; region: number; other: number } | null>(null);

  function bySelection(): void {
    const set = selection.selected;
    if (!set) {
      notices.say(say('apart.selectPiece'));
      return;
    }
    // Two halves that mirror one another are a left and a right piece.
    const parted = connectedPieces(set);
    const halves = parted.sizes.length === 2 ? [0, 1].map((i) => piecesSet(parted, (p) => p === i)) : [];
    const two = halves.length === 2 && mirrorShare(halves[0]!, halves[1]!, 0, build.middles[0]) >= 0.8;
    add(
      (two ? halves : [set]).map((cubes) => piece(nextName(), cubes)),
      true,
    );
    selection.set(null);
  }
  function byPieces(): void {
    if (!build.seen) return;
    const others = splitByPieces(build.seen).slice(1);
    add(others.map((set, i) => piece(`Piece ${regions.value.length + i + 1}`, set)));
  }
  const named = (byte: number): string => colours.swatchOf(byte)?.name ?? `Swatch ${byte}`;
  function byColours(): void {
    if (!build.seen || !session.palette) return;
    const others = splitByColour(build.seen, families(session.palette)).slice(1);
    add(others.map((c) => piece(named(c.byte), c.cells)));
  }
  function byPatches(): void {
    if (!build.seen || !session.palette) return;
    // A speck is no piece: less than a two-hundredth of the sculpt.
    const least = Math.max(2, Math.ceil(build.seen.count / 200));
    const others = splitByPatches(build.seen, families(session.palette), least).slice(1);
    add(others.map((c) => piece(named(c.byte), c.cells)));
  }
  function byLayers(): void {
    if (!part.value) return;
    const seen = CellSet.filled(composite(part.value));
    const upper = part.value.layers.slice(1).filter((l) => !l.hidden);
    // What shows of each layer above the lowest.
    let above = NO_CELLS;
    const found: NamedCells[] = [];
    for (const l of upper.reverse()) {
      const set = CellSet.filled(l.grid).minus(above).intersect(seen);
      above = above.union(set);
      found.push(piece(l.name, set));
    }
    add(found.reverse());
  }
  /** Cuts the region in hand, or the rest, along the guide plane; with teeth when some are asked for. */
  function byPlane(): void {
    const g = build.guide;
    if (!g || !part.value) {
      notices.say(say('apart.noPlane'));
      return;
    }
    const from = (hand.value === null ? undefined : cells.value.get(hand.value)) ?? free.value;
    const joint = teeth.value > 0 ? { width: Math.max(1, teeth.value), depth: teeth.value } : null;
    const [low, high] = splitByPlane(from, g.axis, Math.floor(g.at / 2), joint);
    if (low.isEmpty || high.isEmpty) {
      notices.say(say('apart.planeMisses'));
      return;
    }
    const region = regions.value.find((r) => r.byte === hand.value);
    const name = region ? `${region.name}, part` : nextName();
    // What a region hangs on is all around it; the rest hangs on nothing.
    const holds = region ? CellSet.filled(composite(part.value)).minus(from) : NO_CELLS;
    const before = new Set(regions.value.map((r) => r.byte));
    add([{ name, side: region?.side ?? part.value.side, cells: awayFrom(holds, [low, high]).piece }], true);
    const fresh = regions.value.find((r) => !before.has(r.byte));
    lastCut.value = fresh ? { part: part.value.id, region: fresh.byte, other: region?.byte ?? 0 } : null;
  }
  /** The halves of the last cut, while both are there. */
  const swappable = computed(() => {
    const c = lastCut.value;
    const there = (byte: number): boolean => byte === 0 || regions.value.some((r) => r.byte === byte);
    return c && c.part === part.value?.id && there(c.region) && there(c.other) ? c : null;
  });
  function swapHalves(): void {
    if (swappable.value) session.apply(swapRegionsEdit, swappable.value);
  }
  return { swappable, swapHalves, teeth, bySelection, byPieces, byColours, byPatches, byLayers, byPlane };
}
