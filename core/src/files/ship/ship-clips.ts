import type { Bone, Clip, Id, Rig } from '../../model';
import { bonesInOrder } from '../../rig';
import { bakeClip, bakeSwaps } from './bake-clip';
import type { ShipTrack } from './ship-model';

/** The bones that go into a file, parents first: all but those kept at home that nothing else hangs on. */
export function shippedBones(rig: Rig): Bone[] {
  const order = bonesInOrder(rig),
    needed = new Set<Id>();
  for (const b of order.toReversed()) {
    if (b.ships || needed.has(b.id) || rig.mounts.some((m) => m.bone === b.id)) {
      needed.add(b.id);
      if (b.parent !== null) needed.add(b.parent);
    }
  }
  return order.filter((b) => needed.has(b.id));
}

const PATHS = { move: 'translation', turn: 'rotation', scale: 'scale' } as const;
const baked = new WeakMap<Clip, { readonly rig: Rig; readonly tracks: ReturnType<typeof bakeClip> }>();

/**
 * A clip as tracks of nodes; what it does to bones and mounts that are not shipped is left out. What is baked is remembered
 * for as long as the clip lives.
 *
 * @param unit – project units in target units
 */
export function tracksOf(
  clip: Clip,
  rig: Rig,
  bones: ReadonlyMap<Id, number>,
  mounts: ReadonlyMap<Id, number>,
  unit: number,
): ShipTrack[] {
  let known = baked.get(clip);
  if (known?.rig !== rig) baked.set(clip, (known = { rig, tracks: bakeClip(clip, rig) }));
  const moved = known.tracks.flatMap(({ bone, channel, interpolation, times, values }): ShipTrack[] => {
    const node = bones.get(bone);
    if (node === undefined) return [];
    const scaled = channel === 'move' ? values.map((v) => v * unit) : values;
    return [{ node, path: PATHS[channel], interpolation, times, values: scaled }];
  });
  const swapped = bakeSwaps(clip, rig).flatMap(({ mount, times, values }): ShipTrack[] => {
    const node = mounts.get(mount);
    return node === undefined ? [] : [{ node, path: 'scale', interpolation: 'STEP', times, values }];
  });
  return [...moved, ...swapped];
}
