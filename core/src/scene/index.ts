export * from './draw-list';
export * from './repeats';
export * from './scene-tree';
export * from './gather';
export * from './rig-list';
export * from './lamps';
export * from './contact';
export * from './arrange';
