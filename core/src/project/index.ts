export * from './edit';
export * from './edits';
export * from './history';
export * from './summary';
export * from './checks';
export * from './twins';
export * from './joint';
export * from './mounting';
