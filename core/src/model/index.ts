export * from './ids';
export * from './types';
export * from './records';
export * from './part';
export * from './defaults';
export * from './schema';
export * from './migrate';
export * from './json';
