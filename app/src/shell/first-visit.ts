/** The project that a first visit opens, and that the first steps are about. */
export const DEMO = 'demo-tamsin';
