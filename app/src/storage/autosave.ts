import type { History } from '@sphalerite/core/project';
import type { ViewState } from './view-state';
import type { ProjectWriter } from './project-store';

export type SaveState = 'saved' | 'pending' | 'saving' | 'failed';

/** Milliseconds of quiet before a save, and the longest that work may wait for one. */
const QUIET = 250;
const LONGEST = 1000;

/** Writes a project's history soon after each change, one save at a time; nothing to press. */
export class Autosaver {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private since = 0;
  private running: Promise<void> | null = null;
  private wanted: History<ViewState> | null = null;
  private stopped = false;
  /** Bytes of the save before. */
  lastBytes = 0;

  constructor(
    private readonly writer: ProjectWriter,
    private readonly onState: (state: SaveState, error?: Error) => void,
  ) {}

  get idle(): boolean {
    return this.wanted === null && this.running === null;
  }

  changed(history: History<ViewState>): void {
    if (this.stopped) return;
    this.wanted = history;
    this.onState('pending');
    const now = Date.now();
    if (this.timer === null) this.since = now;
    else clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), Math.max(0, Math.min(QUIET, this.since + LONGEST - now)));
  }

  /** Saves what waits, at once. */
  async flush(): Promise<void> {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    while (this.running) await this.running;
    const history = this.wanted;
    if (!history || this.stopped) return;
    this.wanted = null;
    this.running = this.save(history).finally(() => {
      this.running = null;
    });
    await this.running;
  }

  stop(): void {
    this.stopped = true;
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    this.wanted = null;
  }

  private async save(history: History<ViewState>): Promise<void> {
    this.onState('saving');
    try {
      this.lastBytes = await this.writer.save(history);
      if (!this.wanted) this.onState('saved');
    } catch (e) {
      // The work stays wanted, so that the next change or a retry writes it.
      this.wanted ??= history;
      this.onState('failed', e as Error);
    }
  }
}
