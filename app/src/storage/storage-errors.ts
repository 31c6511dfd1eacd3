import { say } from '../words';

/** The project is being written by another window now; this one may only look. */
export class TakenOverError extends Error {
  override readonly name = 'TakenOverError';
  constructor() {
    super(say('storage.takenOver'));
  }
}

/** The project was deleted for good while it was open. */
export class GoneError extends Error {
  override readonly name = 'GoneError';
  constructor() {
    super(say('storage.gone'));
  }
}

/** What is stored of a project cannot be read. */
export class UnreadableError extends Error {
  override readonly name = 'UnreadableError';
}

/** Whether the browser has no room left; they say it in two ways. */
export const isFull = (e: Error): boolean => e.name === 'QuotaExceededError' || /quota/i.test(e.message);
