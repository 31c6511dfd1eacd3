/**
 * Long work in pieces: yields how far it has come, 0–1, and returns what came of it. Whoever runs it may look up between
 * two pieces, show the share, or leave it off.
 */
export type Steps<T> = Generator<number, T, void>;

/** Runs long work to its end in one go. */
export function finish<T>(steps: Steps<T>): T {
  for (;;) {
    const s = steps.next();
    if (s.done) return s.value;
  }
}
