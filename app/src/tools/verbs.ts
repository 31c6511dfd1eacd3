import type { StrokeVerb } from '@sphalerite/core/sculpt';
import type { ToolContext } from './tool';

/** The card's verb, with Add and Erase changed over while the key for it is held. */
export const effectiveVerb = ({ card, invert }: ToolContext): StrokeVerb =>
  (!invert ? card.verb : card.verb === 'add' ? 'erase' : card.verb === 'erase' ? 'add' : card.verb);
