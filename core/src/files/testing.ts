import { type Quat, slerp } from '../math';
import type { Project } from '../model';
import {
  type BakedTrack,
  PLAIN_PROFILE,
  QUIET_JOB,
  type ShipProfile,
  countsOf,
  gatherShipped,
  noteText,
  runExport,
} from '.';

type Wishes = { readonly [K in keyof ShipProfile]?: Partial<ShipProfile[K]> };
/** The plain profile with some wishes changed. */
export const wishing = (wishes: Wishes): ShipProfile =>
  Object.fromEntries(
    Object.entries(PLAIN_PROFILE).map(([group, plain]) => [
      group,
      Array.isArray(plain) ? (wishes.tiles ?? plain) : { ...(plain as object), ...wishes[group as keyof Wishes] },
    ]),
  ) as unknown as ShipProfile;

/** The project's rig as a GLB, with its notes as sentences; for tests. */
export async function exportGlb(project: Project, wishes: Wishes = {}, options: object = {}) {
  const order = { exporter: 'glb', subject: { of: 'rig' }, profile: wishing(wishes), options } as const;
  const { files, notes, counts } = await runExport(project, order, QUIET_JOB);
  return { result: files[0]!.bytes, notes: notes.map(noteText), counts };
}
export const planGlb = (project: Project) => countsOf(gatherShipped(project, { of: 'rig' }));

/** A track as readers of glTF play it: the value at a moment in seconds, turns at length 1. */
export function asReaders({ times, values, interpolation, channel }: BakedTrack): (t: number) => readonly number[] {
  const one = channel === 'turn' ? 4 : 3,
    size = interpolation === 'CUBICSPLINE' ? 3 * one : one;
  const row = (i: number): number[] => [...values.slice(i * size, (i + 1) * size)];
  const key = (i: number): number[] => (size === one ? row(i) : row(i).slice(one, 2 * one));
  return (t) => {
    const i = Math.max(
      0,
      Math.min(
        times.length - 2,
        times.findLastIndex((o) => o <= t),
      ),
    );
    if (times.length === 1) return key(0);
    const h = times[i + 1]! - times[i]!,
      u = Math.max(0, Math.min(1, (t - times[i]!) / h));
    if (interpolation === 'STEP') return u < 1 ? key(i) : key(i + 1);
    if (interpolation === 'LINEAR')
      return one === 4
        ? slerp(key(i) as unknown as Quat, key(i + 1) as unknown as Quat, u)
        : key(i).map((v, k) => v + (key(i + 1)[k]! - v) * u);
    const [a, b] = [row(i), row(i + 1)],
      u2 = u * u,
      u3 = u2 * u;
    const v = key(i).map(
      (x, k) =>
        (2 * u3 - 3 * u2 + 1) * x +
        (u3 - 2 * u2 + u) * h * a[2 * one + k]! +
        (3 * u2 - 2 * u3) * b[one + k]! +
        (u3 - u2) * h * b[k]!,
    );
    return one === 4 ? v.map((x) => x / Math.hypot(...v)) : v;
  };
}
