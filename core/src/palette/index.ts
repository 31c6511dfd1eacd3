export * from './swatch';
export * from './colour';
export * from './lookup';
export * from './near';
