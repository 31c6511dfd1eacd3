export * from './camera';
export * from './grade';
export * from './light';
export * from './output';
export * from './shot';
export * from './stage';
