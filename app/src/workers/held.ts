/** What is said when files that were sent before are gone, because the worker was ended meanwhile. */
export const NOT_HELD = 'These files are not held here any more.';
