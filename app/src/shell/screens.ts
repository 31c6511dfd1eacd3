import type { Screen } from './screen';

let list: readonly Screen[] = [];

/** Tells the frame which screens there are, before anything is shown. */
export const useScreens = (all: readonly Screen[]): void => void (list = all);

/** The screens of the job line, in the order of the work. */
export const screens = (): readonly Screen[] => list.filter((s) => s.beside === undefined);

/** The screen of an address; the first where there is none. */
export const screenOf = (id: unknown): Screen => list.find((s) => s.id === id) ?? list[0]!;
