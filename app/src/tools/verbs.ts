import type { Verb } from './card';
import type { Pick, ToolContext } from './tool';

const SWAPPED: Readonly<Record<Verb, Verb>> = { add: 'erase', erase: 'add', paint: 'paint', select: 'select' };

/** The card's verb, with Add and Erase changed over while the key for it is held. */
export const effectiveVerb = ({ card, invert }: ToolContext): Verb => (invert ? SWAPPED[card.verb] : card.verb);

/** The byte that new cubes get: that of the swatch in hand, or of the cube they are built on. */
export const valueAt = ({ card, seen, value }: ToolContext, pick: Pick | null): number =>
  card.grow && pick && !pick.floor ? seen.get(...pick.cell) || value : value;
