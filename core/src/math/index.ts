export * from './steps';
export * from './tree';
export * from './vec3';
export * from './quat';
export * from './transform';
export * from './box';
export * from './random';
export * from './polyline';
