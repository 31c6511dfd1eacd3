import { availableParallelism } from 'node:os';
import { Worker, parentPort, workerData } from 'node:worker_threads';
import { encodePng } from '@sphalerite/core/files';
import { finish } from '@sphalerite/core/math';
import type { Shot } from '@sphalerite/core/model';
import { type Traced, traceSceneOf, traceTiles } from '@sphalerite/core/render';
import { pictureSteps } from '@sphalerite/core/takes';
import { openProject } from './io';

/** What a thread is asked for: its share of the tiles of one picture, or a whole one of many. */
type Asked =
  | {
      readonly kind: 'tiles';
      readonly shot: Shot;
      readonly size: readonly [number, number];
      readonly lane: number;
      readonly lanes: number;
    }
  | { readonly kind: 'frame'; readonly shot: Shot; readonly groundAlone: boolean };
type Told = { readonly tile: Traced } | { readonly png: Uint8Array<ArrayBuffer> } | { readonly done: true };

/** What runs in each thread. */
export function serveThread(): void {
  const project = openProject(workerData as string);
  const port = parentPort!;
  const tell = (told: Told): void => port.postMessage(told);
  port.on('message', (asked: Asked) => {
    const { shot } = asked;
    if (asked.kind === 'frame') {
      const [width, height] = shot.output.size;
      const rgba = finish(pictureSteps(project, shot, asked.groundAlone));
      tell({ png: encodePng(width, height, rgba) as Uint8Array<ArrayBuffer> });
      return;
    }
    const scene = traceSceneOf(project, shot, asked.size);
    const { samples, noise } = shot.output;
    for (const { traced } of traceTiles(scene, { samples, noise, lane: asked.lane, lanes: asked.lanes }))
      tell({ tile: traced });
    tell({ done: true });
  });
}

/** One thread a core, each with the project open. */
export class RenderThreads {
  private readonly threads: readonly Worker[];

  constructor(file: string) {
    const script = new URL(import.meta.url);
    this.threads = Array.from({ length: availableParallelism() }, () => new Worker(script, { workerData: file }));
  }
  get size(): number {
    return this.threads.length;
  }

  /** Traces a picture; the thread of a tile is told by its number. */
  async tiles(shot: Shot, size: readonly [number, number], each: (tile: Traced) => void): Promise<void> {
    const lanes = this.size;
    await Promise.all(
      this.threads.map(
        (t, lane) =>
          new Promise<void>((resolve, reject) => {
            const hear = (told: Told): void => {
              if ('tile' in told) each(told.tile);
              else resolve();
            };
            t.on('message', hear).once('error', reject);
            t.postMessage({ kind: 'tiles', shot, size, lane, lanes } satisfies Asked);
          }),
      ),
    );
  }

  /** Traces many pictures, each whole in one thread. */
  async frames(
    shots: readonly { readonly shot: Shot; readonly groundAlone: boolean }[],
    made: (count: number) => void,
  ): Promise<Uint8Array<ArrayBuffer>[]> {
    const out: Uint8Array<ArrayBuffer>[] = [];
    let next = 0,
      count = 0;
    const ask = (t: Worker): Promise<Uint8Array<ArrayBuffer>> => {
      const index = next++;
      return new Promise((resolve, reject) => {
        t.once('message', (told: { png: Uint8Array<ArrayBuffer> }) => resolve((out[index] = told.png)));
        t.once('error', reject);
        t.postMessage({ kind: 'frame', ...shots[index]! } satisfies Asked);
      });
    };
    await Promise.all(
      this.threads.map(async (t) => {
        while (next < shots.length) {
          await ask(t);
          t.removeAllListeners('error');
          made(++count);
        }
      }),
    );
    return out;
  }

  async close(): Promise<void> {
    await Promise.all(this.threads.map((t) => t.terminate()));
  }
}
