export * from './sample';
export * from './keys';
export * from './rest';
export * from './pose-test';
