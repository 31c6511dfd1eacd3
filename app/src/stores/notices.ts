import { defineStore } from 'pinia';
import { ref } from 'vue';

export interface Notice {
  readonly id: number;
  readonly text: string;
  readonly kind: 'info' | 'error';
  readonly action?: { readonly label: string; run(): void };
}

/** Short sentences over the readout: what was undone, what went wrong and what to do. */
export const useNotices = defineStore('notices', () => {
  const list = ref<Notice[]>([]);
  let next = 1;
  const dismiss = (id: number): void => {
    list.value = list.value.filter((n) => n.id !== id);
  };
  function say(text: string, more: Partial<Pick<Notice, 'kind' | 'action'>> = {}): void {
    const notice: Notice = {
      id: next++,
      text,
      kind: more.kind ?? 'info',
      ...(more.action ? { action: more.action } : {}),
    };
    list.value = [...list.value.filter((n) => n.text !== text).slice(-2), notice];
    setTimeout(() => dismiss(notice.id), notice.kind === 'error' ? 9000 : 4500);
  }
  const fail = (e: unknown): void => say(e instanceof Error ? e.message : String(e), { kind: 'error' });
  return { list, say, fail, dismiss };
});
