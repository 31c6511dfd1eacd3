export * from './codec-error';
export * from './pixels';
export * from './png';
export * from './jpeg';
export { type ColourProfile, readProfile, toSrgb } from './colour-profile';
export * from './mesh';
export * from './gif';
export * from './exr';
export * from './radiance';
