/** The project that a first visit opens, and the screen that it stands on. */
export const GREETING = { id: 'demo-night-market', step: 'stage' };
/** The project that the first steps are about. */
export const DEMO = 'demo-tamsin';
