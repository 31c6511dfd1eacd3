import { cloud } from './cloud';
import { crystal } from './crystal';
import type { Generator } from './generator';
import { panels } from './panels';
import { rock } from './rock';
import { rope } from './rope';
import { terrain } from './terrain';
import { tree } from './tree';
import { wall } from './wall';

/** Everything that can be made up, in the order in which it is offered. */
export const GENERATORS: readonly Generator[] = [
  tree,
  rock,
  terrain,
  wall,
  panels,
  crystal,
  cloud,
  rope,
] as readonly Generator[];

export const generatorOf = (id: string): Generator | undefined => GENERATORS.find((g) => g.id === id);
