import type { History } from '@sphalerite/core/project';
import type { ViewState } from './view-state';
import type { ProjectWriter } from './project-writer';

export type SaveState = 'saved' | 'pending' | 'saving' | 'failed';

/** Milliseconds from the begin of one save to that of the next, while changes follow each other. */
const SPACING = 100;
/** Milliseconds until a save that failed is tried again: twice as long each time, up to half a minute. */
const FIRST_RETRY = 1000;
const LONGEST_RETRY = 30_000;

/**
 * Writes a project's history after each change, at once and one save at a time; nothing to press. What could not be
 * written is tried again by itself.
 */
export class Autosaver {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private begun = -Infinity;
  private failures = 0;
  private running: Promise<void> | null = null;
  private wanted: History<ViewState> | null = null;
  private stopped = false;
  /** Bytes of the save before. */
  lastBytes = 0;

  constructor(
    private readonly writer: Pick<ProjectWriter, 'save'>,
    private readonly onState: (state: SaveState, error?: Error) => void,
    /** Whether trying again could help. */
    private readonly mayRetry: (error: Error) => boolean = () => true,
  ) {}

  /** Whether nothing waits to be written. */
  get idle(): boolean {
    return this.wanted === null && this.running === null;
  }

  /** Whether the last save failed and its work still waits. */
  get failing(): boolean {
    return this.failures > 0 && this.wanted !== null;
  }

  changed(history: History<ViewState>): void {
    if (this.stopped) return;
    this.wanted = history;
    if (this.running) return;
    if (this.failures === 0) this.onState('pending');
    const wait = this.failures > 0 ? null : this.begun + SPACING - Date.now();
    // The first change goes out at once: a page that is busy drawing may not come to a timer for long.
    if (wait !== null && wait <= 0) void this.flush();
    else if (wait !== null) this.again(wait);
  }

  /** Saves what waits, at once. */
  async flush(): Promise<void> {
    this.clearTimer();
    while (this.running) await this.running;
    const history = this.wanted;
    if (!history || this.stopped) return;
    this.clearTimer();
    this.wanted = null;
    this.begun = Date.now();
    this.running = this.save(history);
    await this.running;
  }

  stop(): void {
    this.stopped = true;
    this.clearTimer();
    this.wanted = null;
  }

  private again(wait: number): void {
    this.clearTimer();
    this.timer = setTimeout(() => void this.flush(), wait);
  }

  private clearTimer(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
  }

  private async save(history: History<ViewState>): Promise<void> {
    this.onState('saving');
    let error: Error | null = null;
    try {
      this.lastBytes = await this.writer.save(history);
      this.failures = 0;
    } catch (e) {
      error = e as Error;
      this.failures++;
    }
    this.running = null;
    if (this.stopped) return;
    if (error) {
      this.wanted ??= history;
      this.onState('failed', error);
      if (this.mayRetry(error)) this.again(Math.min(LONGEST_RETRY, FIRST_RETRY * 2 ** (this.failures - 1)));
    } else if (this.wanted) {
      this.onState('pending');
      this.again(Math.max(0, this.begun + SPACING - Date.now()));
    } else this.onState('saved');
  }
}
