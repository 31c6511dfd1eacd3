export * from './sample';
export * from './keys';
export * from './rest';
