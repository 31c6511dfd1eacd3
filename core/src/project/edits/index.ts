export * from './strokes';
export * from './parts';
export * from './rig';
export * from './clips';
export * from './palettes';
export * from './shots';
export * from './project';
