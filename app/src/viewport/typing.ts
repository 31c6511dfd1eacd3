const NOT_TEXT = new Set(['checkbox', 'radio', 'range', 'button', 'color']);

/** Whether keys are for a text field. */
export const isTyping = (t: EventTarget | null): boolean =>
  t instanceof HTMLElement &&
  (t.isContentEditable || t instanceof HTMLTextAreaElement || (t instanceof HTMLInputElement && !NOT_TEXT.has(t.type)));
