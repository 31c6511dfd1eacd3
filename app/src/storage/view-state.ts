import type { Id } from '@sphalerite/core/model';
import * as z from 'zod';

/** Kinds of records of which several can be chosen at once. */
export const CHOSEN_KINDS = ['part', 'bone', 'clip', 'scene', 'placement', 'lamp', 'shot'] as const;
export type ChosenKind = (typeof CHOSEN_KINDS)[number];

/** What the artist is looking at; kept with each history step, so that undo brings it back. */
export interface ViewState {
  /** Ids by kind, in the order in which they were chosen: the last is in hand. */
  readonly chosen: Readonly<Record<ChosenKind, readonly Id[]>>;
  readonly layer: Id | null;
  /** The colourway in hand; null is the palette's own look. */
  readonly colourway: Id | null;
}
const NONE: readonly Id[] = [];
export const EMPTY_VIEW: ViewState = {
  chosen: { part: NONE, bone: NONE, clip: NONE, scene: NONE, placement: NONE, lamp: NONE, shot: NONE },
  layer: null,
  colourway: null,
};

/** What may be chosen anew: one record, none, or several in their order. */
export type Choice = { readonly [K in ChosenKind]?: Id | null | readonly Id[] } & Partial<
  Pick<ViewState, 'layer' | 'colourway'>
>;

/** A view with some of it chosen anew. */
export function chosenAnew(
  view: ViewState,
  { layer = view.layer, colourway = view.colourway, ...kinds }: Choice,
): ViewState {
  const chosen = { ...view.chosen };
  for (const kind of CHOSEN_KINDS) {
    const ids = kinds[kind];
    if (ids !== undefined) chosen[kind] = ids === null ? NONE : typeof ids === 'string' ? [ids] : ids;
  }
  return { chosen, layer, colourway };
}

/** The record in hand. */
export const inHand = (view: ViewState, kind: ChosenKind): Id | null => view.chosen[kind].at(-1) ?? null;

const one = z.string().max(64).nullable().catch(null);
const several = z.array(z.string().max(64)).catch([]);
/** A view as it is stored. Formerly one record of each kind was named; whatever makes no sense is as if nothing were chosen. */
export const viewSchema: z.ZodType<ViewState> = z.preprocess(
  (v) => {
    const old = (typeof v === 'object' && v !== null ? v : {}) as Record<string, unknown>;
    if ('chosen' in old) return old;
    const list = (id: unknown): unknown[] => (typeof id === 'string' ? [id] : []);
    return { ...old, chosen: Object.fromEntries(CHOSEN_KINDS.map((k) => [k, list(old[k])])) };
  },
  z.object({
    chosen: z
      .object({
        part: several,
        bone: several,
        clip: several,
        scene: several,
        placement: several,
        lamp: several,
        shot: several,
      })
      .catch(() => ({ part: [], bone: [], clip: [], scene: [], placement: [], lamp: [], shot: [] })),
    layer: one,
    colourway: one,
  }),
);
