export type { Generator, Grown, GrownPart } from './generator';
export { GENERATORS, generatorOf } from './list';
export { placesOf, placesText } from './rope';
