export * from './mirror';
export * from './stroke';
export * from './extrude';
