/** The project is being written by another window now; this one may only look. */
export class TakenOverError extends Error {
  override readonly name = 'TakenOverError';
  constructor() {
    super('Another window has taken this project over. This one shows it without saving.');
  }
}

/** The project was deleted for good while it was open. */
export class GoneError extends Error {
  override readonly name = 'GoneError';
  constructor() {
    super('This project is no longer on the shelf. What you see is still here: put it back, or save it as a file.');
  }
}

/** What is stored of a project cannot be read. */
export class UnreadableError extends Error {
  override readonly name = 'UnreadableError';
}

/** Whether the browser has no room left; they say it in two ways. */
export const isFull = (e: Error): boolean => e.name === 'QuotaExceededError' || /quota/i.test(e.message);
