const NOT_TEXT = new Set(['checkbox', 'radio', 'range', 'button', 'color']);

/** Whether keys are for a text field; one that is only read, as in a list that opens, takes none. */
export const isTyping = (t: EventTarget | null): boolean =>
  t instanceof HTMLElement &&
  (t.isContentEditable ||
    t instanceof HTMLTextAreaElement ||
    (t instanceof HTMLInputElement && !t.readOnly && !NOT_TEXT.has(t.type)));
