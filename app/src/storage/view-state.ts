/** What the artist is looking at; kept with each history step, so that undo brings it back. */
export interface ViewState {
  readonly part: string | null;
  readonly layer: string | null;
  readonly bone: string | null;
  readonly clip: string | null;
  readonly shot: string | null;
  /** The colourway in hand; null is the palette's own look. */
  readonly colourway: string | null;
}
export const EMPTY_VIEW: ViewState = { part: null, layer: null, bone: null, clip: null, shot: null, colourway: null };
