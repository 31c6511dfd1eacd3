import { defineStore } from 'pinia';
import { ref } from 'vue';

export interface Notice {
  readonly id: number;
  readonly text: string;
  readonly kind: 'info' | 'error';
  readonly action?: { readonly label: string; run(): void };
  /** Until it is dismissed; others go by themselves. */
  readonly stays?: boolean;
}
/** Milliseconds for which a sentence stands: longer when it went wrong or when something can be done about it. */
const TO_READ = 4500;
const TO_ACT = 9000;
type More = Partial<Pick<Notice, 'kind' | 'action' | 'stays'>>;

/** Short sentences over the readout: what was undone, what went wrong and what to do. */
export const useNotices = defineStore('notices', () => {
  const list = ref<Notice[]>([]);
  let next = 1;
  const dismiss = (id: number): void => {
    list.value = list.value.filter((n) => n.id !== id);
  };
  /** Shows a sentence, in place of the same one; gives its number. */
  function say(text: string, more: More = {}): number {
    const notice: Notice = { kind: 'info', ...more, id: next++, text };
    const others = list.value.filter((n) => n.text !== text);
    list.value = [...others.filter((n) => n.stays), ...others.filter((n) => !n.stays).slice(-2), notice];
    if (!more.stays) setTimeout(() => dismiss(notice.id), notice.kind === 'error' || notice.action ? TO_ACT : TO_READ);
    return notice.id;
  }
  const fail = (e: unknown): void => void say(e instanceof Error ? e.message : String(e), { kind: 'error' });
  return { list, say, fail, dismiss };
});
