export * from './cube-faces';
