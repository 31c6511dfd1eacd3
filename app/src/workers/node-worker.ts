import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Worker as NodeWorker } from 'node:worker_threads';
import { rolldown } from 'rolldown';

// For tests: the very script of the application's workers, in a thread of Node, behind real messages.

/** What a worker of a browser has at hand and a thread of Node has not. */
const SHIM = `
import { parentPort } from 'node:worker_threads';
globalThis.self = {
  postMessage: (message, { transfer }) => parentPort.postMessage(message, transfer),
  set onmessage(listener) { parentPort.on('message', (data) => listener({ data })); },
};
// Node empties one port, with what comes in meanwhile, before it looks at another; a browser takes them in turn.
globalThis.MessageChannel = class {
  port1 = {};
  port2 = { postMessage: () => setImmediate(() => this.port1.onmessage()) };
};
`;

/** Bundles the worker's script; gives the file. */
export async function bundleWorker(): Promise<string> {
  const file = join(mkdtempSync(join(tmpdir(), 'worker-')), 'compute.mjs');
  const input = new URL('./compute.worker.ts', import.meta.url).pathname;
  const resolve = { mainFields: ['module', 'main'] };
  const bundle = await rolldown({ input, platform: 'node', resolve, logLevel: 'silent' });
  await bundle.write({ file, format: 'esm', codeSplitting: false, banner: SHIM });
  await bundle.close();
  return file;
}

/** A worker as browsers have them, in a thread of Node. */
export class ThreadWorker {
  onmessage: ((e: { data: unknown }) => void) | null = null;
  onerror: ((e: { message: string }) => void) | null = null;
  onmessageerror: (() => void) | null = null;
  /** Buffers that were handed over, message by message. */
  readonly handedOver: number[] = [];
  /** What was sent. */
  readonly posted: unknown[] = [];
  private readonly thread: NodeWorker;

  constructor(script: string) {
    this.thread = new NodeWorker(script);
    this.thread.on('message', (data) => this.onmessage?.({ data }));
    this.thread.on('error', (e) => this.onerror?.({ message: (e as Error).message }));
    this.thread.on('messageerror', () => this.onmessageerror?.());
  }
  postMessage(message: unknown, transfer: ArrayBuffer[] = []): void {
    this.handedOver.push(transfer.length);
    this.posted.push(message);
    this.thread.postMessage(message, transfer);
  }
  terminate(): void {
    void this.thread.terminate();
  }
}
