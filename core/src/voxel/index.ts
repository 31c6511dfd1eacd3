export * from './brick';
export * from './voxel-grid';
export * from './ray-walk';
export * from './half';
