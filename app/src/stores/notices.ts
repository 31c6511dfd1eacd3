import { defineStore } from 'pinia';
import { ref } from 'vue';

export interface Notice {
  readonly id: number;
  readonly text: string;
  readonly kind: 'info' | 'error';
  readonly action?: { readonly label: string; run(): void };
  /** Until it is dismissed. */
  readonly stays?: boolean;
}
/** Milliseconds to look up and read: a beginning, and so much a letter. */
const TO_LOOK = 2500,
  A_LETTER = 55;
/** A refusal is over once so much later something was done. */
const TO_READ = 4000;
/** Sentences that stand at once, besides those that stay. */
const MOST = 3;
type More = Partial<Pick<Notice, 'kind' | 'action' | 'stays'>>;

/**
 * Short sentences over the readout: what was undone, what went wrong and what to do. Those that only tell go by themselves,
 * the later the longer they are, and never while they are pointed at; those that went wrong or offer something stay until they
 * are closed, acted on, or something else was done.
 */
export const useNotices = defineStore('notices', () => {
  const list = ref<Notice[]>([]);
  const since = new Map<number, number>();
  let next = 1;
  /** Whether they are pointed at. */
  let held = false;
  const dismiss = (id: number): void => {
    list.value = list.value.filter((n) => n.id !== id);
    since.delete(id);
  };
  const goesByItself = (n: Notice): boolean => !n.stays && n.kind === 'info' && !n.action;
  function later(n: Notice): void {
    setTimeout(() => (held ? later(n) : dismiss(n.id)), TO_LOOK + A_LETTER * n.text.length);
  }
  /** Shows a sentence, in place of the same one; gives its number. */
  function say(text: string, more: More = {}): number {
    const notice: Notice = { kind: 'info', ...more, id: next++, text };
    const others = list.value.filter((n) => n.text !== text);
    list.value = [...others.filter((n) => n.stays), ...others.filter((n) => !n.stays).slice(1 - MOST), notice];
    since.set(notice.id, Date.now());
    if (goesByItself(notice)) later(notice);
    return notice.id;
  }
  /** Something was done: what was refused before it is over. */
  function workedOn(): void {
    const read = Date.now() - TO_READ;
    const over = list.value.filter((n) => !n.stays && !goesByItself(n) && (since.get(n.id) ?? 0) < read);
    for (const n of over) dismiss(n.id);
  }
  const hold = (on: boolean): void => void (held = on);
  const fail = (e: unknown): void => void say(e instanceof Error ? e.message : String(e), { kind: 'error' });
  return { list, say, fail, dismiss, workedOn, hold };
});
