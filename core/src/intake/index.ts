export * from './framing';
export * from './pixel-art';
export * from './reduce';
export * from './dither';
export * from './picture';
export * from './height-map';
export * from './mesh';
export * from './slices';
