export * from './file-error';
export * from './png';
export * from './slice-sheet';
export * from './project-file';
export * from './palette-strip';
export * from './bake-clip';
export * from './glb';
export * from './palette-file';
