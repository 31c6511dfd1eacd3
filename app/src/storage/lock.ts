import { db } from './database';

/** What came of asking to write a project. */
export interface Hold {
  readonly writable: boolean;
  readonly epoch: number;
  /** Gives the project free. */
  release(): void;
}

const lockName = (id: string): string => `sphalerite project ${id}`;

/**
 * Asks for the one right to write a project. Without `take`, a project held by another window is opened
 * for looking only; with it, the other window loses the right, and a raised epoch stops writes it has under way.
 *
 * @param onLost – called when another window takes the project over
 */
export async function holdProject(id: string, take: boolean, onLost: () => void): Promise<Hold> {
  const epochOf = async (raise: boolean): Promise<number> =>
    db.transaction('rw', db.heads, async () => {
      const head = await db.heads.get(id);
      const epoch = (head?.epoch ?? 1) + (raise ? 1 : 0);
      if (head && raise) await db.heads.update(id, { epoch });
      return epoch;
    });
  // Without locks the window that opened a project last is the one that may write it: the epoch stops all others.
  if (!('locks' in navigator)) return { writable: true, epoch: await epochOf(true), release: () => undefined };
  return new Promise<Hold>((resolve, reject) => {
    let released = false;
    navigator.locks
      .request(lockName(id), take ? { steal: true } : { ifAvailable: true }, async (lock) => {
        if (!lock) {
          resolve({ writable: false, epoch: await epochOf(false), release: () => undefined });
          return;
        }
        const epoch = await epochOf(take);
        await new Promise<void>((free) => {
          resolve({
            writable: true,
            epoch,
            release: () => {
              released = true;
              free();
            },
          });
        });
      })
      .catch((e: unknown) => {
        if (e instanceof DOMException && e.name === 'AbortError') {
          if (!released) onLost();
        } else reject(e as Error);
      });
  });
}
