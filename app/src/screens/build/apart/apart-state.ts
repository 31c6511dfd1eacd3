import { type Vec3, transformPoint, mapVec } from '@sphalerite/core/math';
import { type Part, type Project, type Region, composite, find, sideSuffix } from '@sphalerite/core/model';
import {
  type RegionShare,
  type TwinPair,
  addRegionsEdit,
  changeRegionEdit,
  dropRegionEdit,
  findTwins,
  assignRegionEdit,
  handOverEdit,
  makeTwinsEdit,
  piecesOf,
  cellsByRegion,
  setPartHiddenEdit,
  takeApartEdit,
} from '@sphalerite/core/project';
import { families } from '@sphalerite/core/palette';
import {
  type NamedCells,
  type StrokeVerb,
  mirrorShare,
  plugOf,
  splitByColour,
  splitByPatches,
  splitByPieces,
  splitByPlane,
  swingGap,
  withUnder,
} from '@sphalerite/core/sculpt';
import { CellSet, connectedPieces, piecesSet } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import type { ViewLabel } from '../../../shell/screen';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import type { Mark, Tone } from '../../../viewport/overlay';
import { type StrokeTarget, useBuild } from '../build-state';
import { useColours } from '../colours/colours-state';
import { useSelection } from '../selection/selection-state';

const TONES: readonly Tone[] = ['verdigris', 'x', 'z', 'y'];
/** Degrees to both sides within which a joint should not gape. */
const SWING = 40;
/** Names shown in the view at once. */
const MOST_NAMES = 9;
/** Cubes above which taking apart would be felt on the page. */
const LARGE = 100_000;
const NONE = new CellSet({ min: [0, 0, 0], size: [0, 0, 0] });

/** The regions of the part on the bench, and how it is taken apart by them. */
export const useApart = defineStore('apart', () => {
  const session = useSession();
  const build = useBuild();
  const colours = useColours();
  const selection = useSelection();
  const notices = useNotices();
  const active = computed(() => colours.tab === 'apart');
  /** The region in hand: strokes with Paint give cubes to it. */
  const hand = ref<number | null>(null);
  /** The region that is pointed at in the list. */
  const hovered = ref<number | null>(null);
  const plug = ref(1);
  const clearance = ref(0);
  const socket = ref(false);
  const bones = ref(true);
  const keepWhole = ref(true);
  const teeth = ref(0);
  /** Whether strokes go to regions instead of into the cubes. */
  const painting = ref(false);
  /** Whether what is erased goes to the part beside. */
  const giving = ref(false);
  watch(
    () => session.view.part,
    () => {
      hand.value = null;
      hovered.value = null;
      painting.value = giving.value = false;
    },
  );

  const part = computed<Part | null>(() => session.part);
  const regions = computed<readonly Region[]>(() => part.value?.regions?.list ?? []);
  const cells = computed(() => (part.value ? cellsByRegion(part.value) : new Map<number, CellSet>()));
  const free = computed(() => cells.value.get(0) ?? NONE);
  /** Parts that were taken from this whole before. */
  const earlier = computed(() => session.project?.parts.filter((p) => p.origin?.whole === part.value?.id) ?? []);
  /** The whole that this part was taken from, while it is kept aside. */
  const whole = computed(() => find(session.project?.parts ?? [], part.value?.origin?.whole ?? null) ?? null);

  const piece = (name: string, set: CellSet): NamedCells => ({ name, side: 'centre', cells: set });
  function add(list: readonly NamedCells[], taken = false): void {
    if (!part.value) return;
    const before = new Set(regions.value.map((r) => r.byte));
    if (session.apply(addRegionsEdit, { part: part.value.id, pieces: list, half: build.middles[0], taken })) {
      const fresh = regions.value.filter((r) => !before.has(r.byte));
      if (painting.value && fresh.length === 1) hand.value = fresh[0]!.byte;
    }
  }
  const nextName = (): string => `Piece ${regions.value.length + 1}`;

  const bySelection = (): void => {
    if (!selection.selected) {
      notices.say('Select the cubes of a piece first: with a Select tool, or a click of Select piece or Select hue.');
      return;
    }
    // Two halves that mirror one another are a left and a right piece.
    const parted = connectedPieces(selection.selected);
    const halves = parted.sizes.length === 2 ? [0, 1].map((i) => piecesSet(parted, (p) => p === i)) : [];
    const two = halves.length === 2 && mirrorShare(halves[0]!, halves[1]!, 0, build.middles[0]) >= 0.8;
    const name = nextName();
    add(two ? halves.map((set) => piece(name, set)) : [piece(name, selection.selected)], true);
    selection.set(null);
  };
  const byPieces = (): void => {
    if (build.seen)
      add(
        splitByPieces(build.seen)
          .slice(1)
          .map((set, i) => piece(`Piece ${regions.value.length + i + 1}`, set)),
      );
  };
  const named = (byte: number): string => colours.swatchOf(byte)?.name ?? `Swatch ${byte}`;
  const byColours = (): void => {
    if (build.seen && session.palette)
      add(
        splitByColour(build.seen, families(session.palette))
          .slice(1)
          .map((c) => piece(named(c.byte), c.cells)),
      );
  };
  const byPatches = (): void => {
    // A speck is no piece: less than a two-hundredth of the sculpt.
    if (build.seen && session.palette)
      add(
        splitByPatches(build.seen, families(session.palette), Math.max(2, Math.ceil(build.seen.count / 200)))
          .slice(1)
          .map((c) => piece(named(c.byte), c.cells)),
      );
  };
  const byLayers = (): void => {
    if (!part.value) return;
    const seen = CellSet.filled(composite(part.value));
    // What shows of each layer above the lowest.
    let above = NONE;
    const found: NamedCells[] = [];
    for (const l of part.value.layers
      .slice(1)
      .filter((o) => !o.hidden)
      .reverse()) {
      const set = CellSet.filled(l.grid).minus(above).intersect(seen);
      above = above.union(set);
      found.push(piece(l.name, set));
    }
    add(found.reverse());
  };
  /** Cuts the region in hand, or the rest, along the guide plane; with teeth when some are asked for. */
  const byPlane = (): void => {
    const g = build.guide;
    if (!g || !part.value) {
      notices.say('Put the guide plane where the cut goes (Q, then [ and ] or its handle), then choose this again.');
      return;
    }
    const from = (hand.value === null ? undefined : cells.value.get(hand.value)) ?? free.value;
    const [low, high] = splitByPlane(
      from,
      g.axis,
      Math.floor(g.at / 2),
      teeth.value > 0 ? { width: Math.max(1, teeth.value), depth: teeth.value } : null,
    );
    if (low.isEmpty || high.isEmpty) {
      notices.say(
        'The guide plane does not cross what is to be cut. Move it with [ and ], or take another region in hand.',
      );
      return;
    }
    const region = regions.value.find((r) => r.byte === hand.value);
    add(
      [
        {
          name: region ? `${region.name}, part` : nextName(),
          side: region?.side ?? 'centre',
          cells: low.count <= high.count ? low : high,
        },
      ],
      true,
    );
  };
  watch(active, (on) => {
    if (!on) painting.value = giving.value = false;
  });

  const change = (byte: number, more: { name?: string; side?: Region['side'] }): void => {
    if (part.value) session.apply(changeRegionEdit, { part: part.value.id, region: byte, ...more });
  };
  const drop = (byte: number): void => {
    if (hand.value === byte) hand.value = null;
    if (part.value) session.apply(dropRegionEdit, { part: part.value.id, region: byte });
  };

  /** What a stroke over these cells means: Paint and Add give them to the region in hand, Erase to the one beside. */
  function shares(set: CellSet, verb: StrokeVerb): RegionShare[] {
    const p = part.value;
    if (!p || hand.value === null) return [];
    const seen = composite(p),
      touched = withUnder(seen, set.intersect(CellSet.filled(seen)));
    if (verb === 'erase') return [{ cells: touched.intersect(cells.value.get(hand.value) ?? NONE), region: 'other' }];
    const region = regions.value.find((r) => r.byte === hand.value);
    const pair =
      region && region.side !== 'centre'
        ? regions.value.find((r) => r.name === region.name && r.side !== region.side && r.side !== 'centre')
        : undefined;
    // A mirrored stroke on a left piece is a stroke on its right one.
    const half = build.symmetry.mirror[0];
    const far = pair && half !== null ? sideOf(touched, half, pair.side === 'left') : NONE;
    return [
      { cells: touched.minus(far), region: hand.value },
      ...(pair && !far.isEmpty ? [{ cells: far, region: pair.byte }] : []),
    ];
  }
  const regionTarget: StrokeTarget = {
    text: 'strokes paint a piece, not colours',
    takes: () => true,
    tryOut: (set, verb) => {
      const list = shares(set, verb).filter((g) => !g.cells.isEmpty);
      return list.length > 0 ? session.tryEdit(assignRegionEdit, { part: part.value!.id, shares: list }, true) : null;
    },
    take: (set, verb) => {
      if (hand.value === null) {
        const seen = composite(part.value!);
        if (verb !== 'erase') add([piece(nextName(), withUnder(seen, set.intersect(CellSet.filled(seen))))], true);
        return;
      }
      session.apply(assignRegionEdit, { part: part.value!.id, shares: shares(set, verb) });
    },
  };
  /** What Erase takes from a part of a whole goes to the part beside it. */
  const besideTarget: StrokeTarget = {
    text: 'Erase gives cubes to the part beside',
    takes: (verb) => verb === 'erase',
    tryOut: (set) => session.tryEdit(handOverEdit, { part: part.value!.id, cells: set }, true),
    take: (set) => void session.apply(handOverEdit, { part: part.value!.id, cells: set }),
  };
  watch(painting, (on) => {
    if (on) build.strokeTarget = regionTarget;
    else if (build.strokeTarget === regionTarget) build.strokeTarget = null;
    if (!on) hand.value = null;
  });
  watch(giving, (on) => {
    if (on) build.strokeTarget = besideTarget;
    else if (build.strokeTarget === besideTarget) build.strokeTarget = null;
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
  const sideOf = (set: CellSet, half: number, left: boolean): CellSet => {
    const [low, high] = splitByPlane(set, 0, Math.floor(half / 2));
    return left ? high : low;
  };

  const options = computed(() => ({
    rest: restName(),
    plug: plug.value,
    clearance: clearance.value,
    socket: socket.value,
    bones: bones.value,
    keepWhole: keepWhole.value,
  }));
  /** A whole that was kept aside is called so; its rest is not. */
  const restName = (): string => (part.value?.name ?? 'Rest').replace(/, whole( \d+)?$/, '');
  const pieces = computed(() =>
    part.value && active.value && regions.value.length > 0 ? piecesOf(part.value, restName()) : null,
  );
  /** How much of each joint would gape, 0–1, as the plug is set now; the worst of turns about X and Z. */
  const gaps = computed(() => {
    const p = pieces.value,
      seen = part.value && composite(part.value);
    if (!p || !seen || seen.count > 20_000) return null;
    return p.pieces.map(({ region, cells: set }, i) => {
      if (p.parent[i]! < 0) return { region, share: 0 };
      const body = p.pieces[p.parent[i]!]!.cells;
      const limb = set.union(CellSet.ofCells(plugOf(seen, set, body, plug.value, clearance.value).map(([c]) => c)));
      return {
        region,
        share: Math.max(...([0, 2] as const).map((axis) => swingGap(set, limb, body, p.pivots[i]!, axis, SWING))),
      };
    });
  });
  const worst = computed(() => gaps.value?.reduce((a, b) => (b.share > a.share ? b : a)) ?? null);

  /** Puts the whole on the bench alone, to change it and take it apart again. */
  function workOnWhole(): void {
    const of = whole.value;
    if (!of) return;
    if (of.hidden)
      session.apply(setPartHiddenEdit, { part: of.id, hidden: false }, () => ({ part: of.id, layer: null }));
    else session.choose({ part: of.id, layer: null });
    build.isolate = true;
  }
  function take(of: Part | null = part.value): void {
    if (!of) return;
    if (of === part.value && earlier.value.length > 0) build.isolate = false;
    const name = of.name.replace(/, whole( \d+)?$/, '');
    const args = { part: of.id, ...options.value, rest: name };
    const choosing = (p: Project): { part: string | null; layer: null } => ({
      part:
        p.parts.find((o) => o.origin?.whole === of.id && o.origin.region === 0)?.id ??
        p.parts.find((o) => o.origin?.whole === of.id)?.id ??
        null,
      layer: null,
    });
    if (composite(of).count > LARGE) void session.applyInBackground(takeApartEdit, args, choosing);
    else session.apply(takeApartEdit, args, choosing);
  }

  const pairs = computed<TwinPair[]>(() => (active.value && session.project ? findTwins(session.project) : []));
  const twin = (list: readonly TwinPair[]): void => {
    session.apply(makeTwinsEdit, {
      pairs: list.map((p) => ({ part: p.other.id, source: p.source.id, axis: p.twin.axis, plane: p.twin.plane })),
    });
  };

  const marks = computed<Mark[]>(() => {
    if (!active.value || !part.value) return [];
    const shown = find(session.undressed?.parts ?? [], part.value.id) ?? part.value;
    const now = cellsByRegion(shown);
    const differ = pairs.value.find((p) => p.other.id === shown.id)?.differ;
    return [
      ...(shown.regions?.list ?? [])
        .filter((r) => !now.get(r.byte)!.isEmpty)
        .map((r, i): Mark => {
          const on = r.byte === (hovered.value ?? hand.value);
          return { set: now.get(r.byte)!, tone: on ? 'honey' : TONES[i % TONES.length]!, fill: on ? 0.6 : 0.32 };
        }),
      ...(differ && !differ.isEmpty ? [{ set: differ, tone: 'danger' as const, fill: 0.6, through: true }] : []),
    ];
  });
  /** Names where the pieces are, and joints where they would turn. */
  const labels = (toWorld: readonly number[]): ViewLabel[] => {
    const p = pieces.value;
    if (!p) return [];
    const meant = hovered.value ?? hand.value;
    // Many names at once would hide what they name.
    return p.pieces
      .filter((o) => (meant === null ? o.region !== 0 && p.pieces.length <= MOST_NAMES : o.region === meant))
      .map((o) => {
        const box = o.cells.tight!;
        return {
          at: transformPoint(
            toWorld,
            mapVec(box.min, (m, i) => m + box.size[i]! / 2),
          ),
          text: o.name + sideSuffix(o.side),
          tone: 'ink',
        };
      });
  };
  const joints = computed<readonly Vec3[]>(() => {
    const p = pieces.value;
    return p ? p.pivots.filter((_, i) => i !== p.root).map((h) => [h[0] / 2, h[1] / 2, h[2] / 2]) : [];
  });
  return {
    active,
    hand,
    hovered,
    plug,
    clearance,
    socket,
    bones,
    keepWhole,
    teeth,
    painting,
    giving,
    regions,
    cells,
    free,
    earlier,
    whole,
    pairs,
    marks,
    labels,
    joints,
    gaps,
    worst,
    add,
    change,
    drop,
    paint,
    bySelection,
    byPieces,
    byColours,
    byPatches,
    byLayers,
    byPlane,
    take,
    workOnWhole,
    twin,
  };
});
