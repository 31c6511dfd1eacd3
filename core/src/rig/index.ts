export * from './pose';
export * from './keep-place';
export * from './chain';
export * from './constraints';
export * from './joint-study';
export * from './ring';
export * from './bone-names';
