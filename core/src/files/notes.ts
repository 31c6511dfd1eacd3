/** Something worth telling about a file: what was left out, changed or guessed, of what. A sentence is made where it is shown. */
export interface Note {
  readonly code: NoteCode;
  /** The name of the thing; empty where the file itself is meant. */
  readonly about: string;
  readonly params: Readonly<Record<string, string | number>>;
}

const count = (n: Note, one: string, many: string): string =>
  `${n.params['count']} ${n.params['count'] === 1 ? one : many}`;

/** Every note with its sentence. */
const TEXTS = {
  partHidden: (n: Note) => `"${n.about}" is hidden and was left out.`,
  partEmpty: (n: Note) => `"${n.about}" is empty and was left out.`,
  layersHidden: (n: Note) => `Hidden layers of "${n.about}" were left out.`,
  placementsHidden: (n: Note) => `${count(n, 'hidden placement was', 'hidden placements were')} left out.`,
  cubesLeft: (n: Note) => `${count(n, 'terrain cube was', 'terrain cubes were')} left out; they ship with their set.`,
  squared: (n: Note) =>
    `"${n.about}" leans under uneven scaling, which files of this kind cannot hold; it stands square in the file.`,
  clipEmpty: (n: Note) => `Clip "${n.about}" has no keys and was left out.`,
  controlsLeft: (n: Note) =>
    `${count(n, 'bone that only steers others was', 'bones that only steer others were')} left out; what they do is in the clips.`,
  entriesSpare: (n: Note) =>
    `${count(n, 'file in the project file belongs', 'files in the project file belong')} to nothing and ${n.params['count'] === 1 ? 'was' : 'were'} left out.`,
  surfacesLost: (n: Note) => `Gloss, metal and glow of ${count(n, 'swatch', 'swatches')} are not in this kind of file.`,
} as const satisfies Record<string, (n: Note) => string>;
export type NoteCode = keyof typeof TEXTS;

export const note = (code: NoteCode, about = '', params: Note['params'] = {}): Note => ({ code, about, params });
export const noteText = (n: Note): string => (TEXTS[n.code] as (n: Note) => string)(n);
