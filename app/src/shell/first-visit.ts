import type { InjectionKey } from 'vue';

/** Whether this browser has never had a project of ours. */
export const FIRST_VISIT: InjectionKey<boolean> = Symbol('first visit');

/** The project that a first visit opens, and that the first steps are about. */
export const DEMO = 'demo-tamsin';
