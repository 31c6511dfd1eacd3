export * from './chunk-mesh';
export * from './quad-corners';
export * from './surface';
export * from './closed-surface';
export * from './box-cover';
export * from './transparent';
