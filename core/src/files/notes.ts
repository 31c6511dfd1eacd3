import { type EN, say } from '../words';

/** Every code of a note: its sentence stands in the catalogue as `note.…`. */
export type NoteCode = keyof typeof EN extends infer K ? (K extends `note.${infer C}` ? C : never) : never;

/** Something worth telling about a file: what was left out, changed or guessed, of what. A sentence is made where it is shown. */
export interface Note {
  readonly code: NoteCode;
  /** The name of the thing; empty where the file itself is meant. */
  readonly about: string;
  readonly params: Readonly<Record<string, string | number>>;
}

export const note = (code: NoteCode, about = '', params: Note['params'] = {}): Note => ({ code, about, params });
export const noteText = (n: Note): string => say(`note.${n.code}`, { ...n.params, about: n.about });
