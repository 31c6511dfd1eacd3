export * from './brick';
export * from './voxel-grid';
export * from './ray-walk';
export * from './half';
export * from './cell-set';
export * from './flood';
export * from './pieces';
export * from './bytes';
