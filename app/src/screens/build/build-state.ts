import { type Axis, type Box, type Vec3, boxEnd, boxesEqual, intersectBoxes, mapVec } from '@sphalerite/core/math';
import { type Id, type Project, composite } from '@sphalerite/core/model';
import type { MirrorPlanes, Radial, StrokeVerb, Symmetry } from '@sphalerite/core/sculpt';
import { type CellSet, type VoxelGrid, middlePlane } from '@sphalerite/core/voxel';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, toRaw, watch } from 'vue';
import { getSetting, putSetting } from '../../storage/settings-store';
import { useSession } from '../../stores/session';
import { type CardOptions, READY_CARDS, type Reach, type ToolCard, type Verb, readCard } from '../../tools/card';

/** A plane to draw on in mid-air, in half cubes of the part: odd runs through a layer of cubes, even between two. */
export interface Guide {
  readonly axis: Axis;
  readonly at: number;
}
/** Handles on the box of the volume, or on that of the cutaway. */
export type BoxHandles = 'volume' | 'cutaway' | null;
/** What is tinted in the view. */
export type Tint = 'none' | 'unpaired' | 'grain' | 'layer' | 'tidy' | 'silhouette';

/** Long work that can be stopped. */
export interface Job {
  readonly label: string;
  readonly progress: number;
  stop(): void;
}

/** Where the cells of strokes go while something else than cubes is painted. */
export interface StrokeTarget {
  /** What the chip in the view says of it. */
  readonly text: string;
  /** Whether it takes strokes of this verb; others go into the layer. */
  takes(verb: StrokeVerb): boolean;
  /** What it would give, for the view; null when nothing. */
  tryOut(cells: CellSet, verb: StrokeVerb): Project | null;
  take(cells: CellSet, verb: StrokeVerb): void;
}

/** What is in the artist's hand in Build, and how the part is looked at. */
export const useBuild = defineStore('build', () => {
  const session = useSession();
  const cards = shallowRef<readonly ToolCard[]>(READY_CARDS);
  const index = ref(0);
  const byte = ref(0);
  const mirrorOn = ref<[boolean, boolean, boolean]>([false, false, false]);
  /** Where a part's mirror planes stand; they keep their numbers when the volume changes. */
  const planes = shallowRef<Readonly<Record<Id, Vec3>>>({});
  const radialOn = ref(false);
  const radialAxis = ref<Axis>(1);
  const radialCount = ref(8);
  const isolate = ref(false);
  const seeThrough = ref(false);
  const guide = shallowRef<Guide | null>(null);
  const handles = ref<BoxHandles>(null);
  const cuts = shallowRef<Readonly<Record<Id, Box>>>({});
  const tint = ref<Tint>('none');
  const growVolume = ref(false);
  const stamp = ref<Id | null>(null);
  const job = shallowRef<Job | null>(null);
  /** Walls that hollowing out leaves, in cubes. */
  const keepWall = ref(2);
  const measuring = ref(false);
  const strokeTarget = shallowRef<StrokeTarget | null>(null);
  /** The card whose name is being typed; −1 for none. */
  const naming = ref(-1);
  /** The keyboard cursor, null while it is put away. */
  const cursor = ref<Vec3 | null>(null);

  // Tools are kept for each project.
  let loadedFor = '';
  watch(
    () => session.project?.id,
    async (id) => {
      if (!id || id === loadedFor) return;
      loadedFor = id;
      const stored = await getSetting<unknown[]>(`tools ${id}`, []);
      const list = stored.map(readCard).filter((c): c is ToolCard => c !== null);
      if (loadedFor !== id) return;
      cards.value = list.length > 0 ? list : READY_CARDS;
      index.value = 0;
      guide.value = null;
      cuts.value = {};
      planes.value = {};
      mirrorOn.value = [false, false, false];
      radialOn.value = false;
      tint.value = 'none';
      handles.value = null;
    },
    { immediate: true },
  );
  function setCards(next: readonly ToolCard[]): void {
    cards.value = next;
    if (loadedFor)
      void putSetting(
        `tools ${loadedFor}`,
        next.map((c) => ({ ...c })),
      );
  }

  const card = computed(() => cards.value[index.value] ?? cards.value[0]!);
  /** As it looks in the colourway in hand. */
  const palette = computed(() => session.look);
  const swatch = computed(
    () => palette.value?.swatches.find((s) => s.byte === byte.value) ?? palette.value?.swatches[0] ?? null,
  );
  const middles = computed<Vec3>(() => {
    const part = session.part;
    if (!part) return [0, 0, 0];
    const b = part.bounds;
    return (
      planes.value[part.id] ?? [
        middlePlane(b.min[0], b.size[0]),
        middlePlane(b.min[1], b.size[1]),
        middlePlane(b.min[2], b.size[2]),
      ]
    );
  });
  /** Live planes in half cubes. */
  const mirror = computed<MirrorPlanes>(
    () => mirrorOn.value.map((on, a) => (on && session.part ? middles.value[a]! : null)) as unknown as MirrorPlanes,
  );
  const radial = computed<Radial | null>(() => {
    if (!radialOn.value || !session.part) return null;
    const a = radialAxis.value;
    return {
      axis: a,
      count: radialCount.value,
      centre: [middles.value[((a + 1) % 3) as Axis], middles.value[((a + 2) % 3) as Axis]],
    };
  });
  const symmetry = computed<Symmetry>(() => ({ mirror: mirror.value, radial: radial.value }));
  /** What the cutaway leaves visible of the part; null when nothing is cut. */
  const limit = computed<Box | null>(() => {
    const part = session.part;
    const cut = part && cuts.value[part.id];
    if (!part || !cut) return null;
    const seen = intersectBoxes(cut, part.bounds);
    return boxesEqual(seen, part.bounds) || seen.size.some((s) => s < 1) ? null : seen;
  });
  /** The visible layers inside the cutaway. */
  const seen = computed<VoxelGrid | null>(() => {
    const part = session.part;
    if (!part) return null;
    return limit.value ? composite(part).clippedTo(limit.value) : composite(part);
  });

  function movePlane(axis: Axis, half: number): void {
    const id = session.part?.id;
    if (id) planes.value = { ...planes.value, [id]: mapVec(middles.value, (h, i) => (i === axis ? half : h)) };
  }
  function toggleMirror(a: Axis): void {
    // The plane stays where it was first switched on, whatever becomes of the volume.
    movePlane(a, middles.value[a]!);
    mirrorOn.value = mirrorOn.value.map((v, i) => (i === a ? !v : v)) as [boolean, boolean, boolean];
  }
  function setCut(box: Box | null): void {
    const part = session.part;
    if (!part) return;
    const { [part.id]: _old, ...rest } = cuts.value;
    cuts.value = box ? { ...rest, [part.id]: box } : rest;
  }
  /** The guide plane by so many half cubes along its axis. */
  function stepGuide(by: number): void {
    const g = guide.value,
      b = session.part?.bounds;
    if (!g || !b) return;
    guide.value = { ...g, at: Math.max(2 * b.min[g.axis], Math.min(2 * boxEnd(b)[g.axis], g.at + by)) };
  }

  const change = (more: Partial<ToolCard>): void => {
    const before = card.value;
    const next = { ...before, ...more };
    // A name of one's own stays; a name that says verb and reach follows them.
    if (more.name === undefined && nameFor(before) === before.name) next.name = nameFor(next);
    setCards(toRaw(cards.value).with(index.value, next));
  };
  return {
    cards,
    index,
    byte,
    mirrorOn,
    planes,
    radialOn,
    radialAxis,
    radialCount,
    isolate,
    seeThrough,
    guide,
    handles,
    cuts,
    tint,
    growVolume,
    stamp,
    job,
    keepWall,
    measuring,
    strokeTarget,
    naming,
    cursor,
    card,
    palette,
    swatch,
    middles,
    mirror,
    radial,
    symmetry,
    limit,
    seen,
    setCards,
    change,
    movePlane,
    toggleMirror,
    setCut,
    stepGuide,
    setVerb: (verb: Verb) =>
      change({
        verb,
        ...(['extrude', 'opening'].includes(card.value.reach) && verb !== 'add' ? { reach: 'box' as Reach } : {}),
      }),
    setReach: (reach: Reach) =>
      change({
        reach,
        ...(reach === 'extrude' || reach === 'opening' ? { verb: 'add' as Verb } : {}),
        ...(reach === 'extrude' ? { grow: true } : {}),
      }),
    setOption: (more: Partial<CardOptions>) => change(more),
  };
});

/** What a card is called until it gets a name of its own. */
export function nameFor(c: ToolCard): string {
  if (c.reach === 'extrude') return `Extrude${c.face === 'face' ? '' : c.face === 'colour' ? ' hue' : ' plane'}`;
  if (c.reach === 'opening') return c.sill ? 'Window' : 'Door';
  const verb = { add: 'Add', erase: 'Erase', paint: 'Paint', select: 'Select' }[c.verb];
  const what =
    c.reach === 'cylinder' && c.profile !== 'straight'
      ? c.profile
      : c.reach === 'line' && c.path !== 'straight'
        ? c.path
        : c.reach;
  return `${verb} ${c.wall > 0 && ['box', 'ellipsoid', 'cylinder'].includes(c.reach) ? 'hollow ' : ''}${what}`;
}
