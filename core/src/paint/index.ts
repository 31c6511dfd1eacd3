export * from './finish';
export * from './scatter';
export * from './occlusion';
export * from './tones';
export * from './courses';
export * from './apply-finish';
export * from './tiles';
