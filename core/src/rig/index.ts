export * from './pose';
export * from './keep-place';
