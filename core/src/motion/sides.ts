import { type Quat, type Vec3, mirrorQuat } from '../math';
import { CHANNELS, type Channel, type Clip, type Id, type Lane, type Rig } from '../model';
import { type AnyKey, type CopiedKeys, emptyLane, keysOf } from './keys';

/** For each bone the one of its name on the other side; a bone of the middle, or one alone, is its own. */
export function otherSides(rig: Rig): Map<Id, Id> {
  const byName = new Map(rig.bones.map((b) => [`${b.name} ${b.side}`, b.id]));
  return new Map(
    rig.bones.map((b) => [
      b.id,
      (b.side === 'centre' ? undefined : byName.get(`${b.name} ${b.side === 'left' ? 'right' : 'left'}`)) ?? b.id,
    ]),
  );
}

const flip = (v: number): number => (v === 0 ? 0 : -v);

/** What a key's value is across the plane x = 0: shifts along X and turns about Y and Z are the other way round. */
export function mirroredValue(channel: Channel, value: Vec3 | Quat): Vec3 | Quat {
  if (channel === 'scale') return value;
  if (channel === 'turn') return mirrorQuat(value as Quat, 0);
  const [x, y, z] = value as Vec3;
  // What spins is an axis: across the plane it points the other way round.
  if (channel === 'hinge') return [x, flip(y), flip(z)];
  return [flip(x), y, z];
}

/** Copied keys for the other side. */
export function mirroredKeys(copied: CopiedKeys, rig: Rig): CopiedKeys {
  const other = otherSides(rig);
  return {
    keys: copied.keys.map(({ bone, channel, key }) => ({
      bone: other.get(bone) ?? bone,
      channel,
      key: { ...key, value: mirroredValue(channel, key.value) },
    })),
  };
}

/**
 * The clip whose second half is the first on the other side, as in a walk: each key before the middle comes again half a length
 * later, mirrored, on the bone's other side; the end is the beginning. Keys of the second half go.
 */
export function secondHalfMirrored(clip: Clip, rig: Rig): Clip {
  const half = Math.round(clip.length / 2),
    other = otherSides(rig);
  const first = new Map(clip.lanes.map((l) => [l.bone, l]));
  const bones = new Set([...first.keys()].flatMap((b) => [b, other.get(b) ?? b]));
  const lanes = [...bones].map((bone): Lane => {
    const own = first.get(bone) ?? emptyLane(bone),
      theirs = first.get(other.get(bone) ?? bone) ?? emptyLane(bone);
    const lane: Record<Channel, readonly AnyKey[]> = { move: [], turn: [], hinge: [], scale: [] };
    for (const channel of CHANNELS) {
      const mine = keysOf(own, channel).filter((k) => k.time < half);
      const mirrored = keysOf(theirs, channel)
        .filter((k) => k.time < half)
        .map((k) => ({ ...k, time: k.time + half, value: mirroredValue(channel, k.value) }));
      const start = mine.find((k) => k.time === 0);
      lane[channel] = [...mine, ...mirrored, ...(start ? [{ ...start, time: clip.length }] : [])];
    }
    return { bone, ...lane } as Lane;
  });
  return { ...clip, lanes: lanes.filter((l) => CHANNELS.some((c) => l[c].length > 0)) };
}
