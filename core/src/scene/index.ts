export * from './draw-list';
export * from './repeats';
export * from './gather';
