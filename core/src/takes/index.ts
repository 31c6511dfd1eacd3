export * from './frames';
export * from './sprites';
export * from './sheet';
export * from './trace-frame';
export * from './large';
export * from './thumbnail';
