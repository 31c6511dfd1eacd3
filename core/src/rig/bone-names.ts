import { type Vec3, sub } from '../math';
import { type Bone, type Id, type Rig, find, freeName } from '../model';
import { restWorld } from './keep-place';

/** What usually hangs on a bone, as people name it: on, or off to the side and down. */
const NEXT: Readonly<Record<string, string>> = {
  spine: 'Chest',
  neck: 'Head',
  shoulder: 'Upper arm',
  'upper arm': 'Forearm',
  forearm: 'Hand',
  hand: 'Fingers',
  thigh: 'Shin',
  shin: 'Foot',
  foot: 'Toes',
};

/**
 * The usual name of a bone that would hang on another with its joint at a point of rig space: in order from the hips to head, hand and
 * foot. What has no usual name counts on from what it hangs on, as a tail does.
 */
export function proposedName(rig: Rig, parent: Id | null, at: Vec3): string {
  const taken = rig.bones.map((b) => b.name),
    above = find(rig.bones, parent);
  if (!above) return taken.includes('Hips') ? freeName('Bone', taken) : 'Hips';
  const [dx, dy] = sub(at, restWorld(rig).get(above.id)!.t);
  const name = usual(above, Math.abs(dx) > Math.abs(dy), dy < 0);
  return name ?? freeName(above.name, taken);
}

function usual({ name }: Bone, aside: boolean, down: boolean): string | undefined {
  const key = name.toLowerCase().replace(/ \d+$/, '');
  if (key === 'hips' || key === 'root') return down ? 'Thigh' : 'Spine';
  if (key === 'chest') return aside || down ? 'Upper arm' : 'Neck';
  return NEXT[key];
}
