export * from './ray-grid';
export * from './trace-surfaces';
export * from './emitters';
export * from './trace-scene';
export * from './intersect';
export * from './path-trace';
export * from './film';
export * from './thumbnail';
