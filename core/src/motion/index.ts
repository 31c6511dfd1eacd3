export * from './sample';
export * from './keys';
