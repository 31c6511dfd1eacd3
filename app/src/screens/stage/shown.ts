import { type Id, type Repeat, type Scene, copiesIn } from '@sphalerite/core/model';

const KINDS = { line: 'row', ring: 'ring', path: 'path', scatter: 'scatter' } as const;
/** As "scatter 12": how something is repeated, and how often. */
export const repeatText = (r: Repeat): string => (r.kind === 'mirror' ? 'mirrored' : `${KINDS[r.kind]} ${copiesIn(r)}`);

/** The repeat of each placement that has one. */
export const repeatsOf = (scene: Scene): ReadonlyMap<Id, Repeat> => new Map(scene.repeats.map((r) => [r.placement, r]));
