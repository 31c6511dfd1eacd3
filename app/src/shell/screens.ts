import type { Screen } from './screen';

let list: readonly Screen[] = [];

/** Tells the frame which screens there are, before anything is shown. */
export const useScreens = (screens: readonly Screen[]): void => void (list = screens);

/** The screens of the bench, in the order of the work. */
export const screens = (): readonly Screen[] => list;

/** The screen of an address; the first where there is none. */
export const screenOf = (id: unknown): Screen => list.find((s) => s.id === id) ?? list[0]!;
