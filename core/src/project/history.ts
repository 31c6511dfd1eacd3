import { CHANNELS, LISTED_KINDS, type Project, eachMarked, hasMarked, recordsOf } from '../model';
import type { VoxelGrid } from '../voxel';

/** One step: the project after it, and what the artist saw around it. `View` is the caller's own. */
export interface HistoryEntry<View> {
  readonly label: string;
  /** Milliseconds since 1970. */
  readonly at: number;
  /** The screen it was made on. */
  readonly where: string;
  readonly project: Project;
  readonly viewBefore: View;
  readonly viewAfter: View;
  /** Memory it alone is thought to hold. */
  readonly bytes: number;
}

/** All steps from the oldest kept, and which of them is now. A value: every change gives a new one. */
export interface History<View> {
  readonly entries: readonly HistoryEntry<View>[];
  readonly now: number;
  /** Bytes that steps may hold together before the oldest are dropped. */
  readonly budget: number;
}

export const DEFAULT_HISTORY_BUDGET = 256 * 1024 * 1024;

export function startHistory<View>(
  project: Project,
  view: View,
  at: number,
  budget = DEFAULT_HISTORY_BUDGET,
): History<View> {
  return {
    entries: [{ label: 'Opened', at, where: '', project, viewBefore: view, viewAfter: view, bytes: 0 }],
    now: 0,
    budget,
  };
}

export const current = <View>(h: History<View>): Project => h.entries[h.now]!.project;
export const canUndo = <View>(h: History<View>): boolean => h.now > 0;
export const canRedo = <View>(h: History<View>): boolean => h.now < h.entries.length - 1;
export const historyBytes = <View>(h: History<View>): number => h.entries.reduce((n, e) => n + e.bytes, 0);

/** Adds a step after now; what could be redone is gone. The same history when the project did not change. */
export function record<View>(h: History<View>, step: Omit<HistoryEntry<View>, 'bytes'>): History<View> {
  const before = current(h);
  if (step.project === before) return h;
  const entries = [...h.entries.slice(0, h.now + 1), { ...step, bytes: bytesBetween(before, step.project) }];
  return trim({ ...h, entries, now: entries.length - 1 });
}

/** Drops the oldest steps until the rest fit the budget; the present and the one before it always stay. */
function trim<View>(h: History<View>): History<View> {
  let total = historyBytes(h);
  let drop = 0;
  while (total > h.budget && drop < h.now - 1) total -= h.entries[drop++]!.bytes;
  return drop === 0 ? h : { ...h, entries: h.entries.slice(drop), now: h.now - drop };
}

/**
 * Puts steps that were read late around a history that was begun with `present` alone. Those after it are left out once
 * another step was made, as {@link record} would have dropped them. Gives `h` itself when its first step is gone by now.
 */
export function joinSteps<View>(
  h: History<View>,
  present: HistoryEntry<View>,
  earlier: readonly HistoryEntry<View>[],
  later: readonly HistoryEntry<View>[],
): History<View> {
  if (!h.entries[0] || originalOf(h.entries[0]) !== present) return h;
  const entries = [...earlier, ...h.entries, ...(h.entries.length === 1 ? later : [])];
  return trim({ ...h, entries, now: h.now + earlier.length });
}

/** What each step was that was written anew with other restore points. */
const originals = new WeakMap<object, object>();
/** The step as it was recorded: the same for all its later forms. */
export const originalOf = <View>(e: HistoryEntry<View>): HistoryEntry<View> =>
  (originals.get(e) as HistoryEntry<View> | undefined) ?? e;

/** A step with other restore points: they are kept apart from the history, and are those of the present at every step. */
function withPoints<View>(h: History<View>, at: number, restorePoints: Project['restorePoints']): History<View> {
  const old = h.entries[at]!;
  if (old.project.restorePoints === restorePoints) return h;
  const entry = { ...old, project: { ...old.project, restorePoints } };
  originals.set(entry, originalOf(old));
  return { ...h, entries: h.entries.with(at, entry) };
}

/** The present with other restore points, without a step of its own: no undo takes them away. */
export const setPoints = <View>(h: History<View>, restorePoints: Project['restorePoints']): History<View> =>
  withPoints(h, h.now, restorePoints);

/** To any step; restore points come along. */
export const jump = <View>(h: History<View>, to: number): History<View> =>
  to < 0 || to >= h.entries.length || to === h.now ? h : { ...withPoints(h, to, current(h).restorePoints), now: to };
export const undo = <View>(h: History<View>): History<View> => jump(h, h.now - 1);
export const redo = <View>(h: History<View>): History<View> => jump(h, h.now + 1);

/** What a key of a clip takes with its value, as engines hold it. */
const KEY_BYTES = 160;
/** What a step takes by itself, and each record that it changed. */
const STEP_BYTES = 512;

/**
 * Bytes that `after` holds and `before` does not: bricks, files, keys of lanes, and a little for every record around them.
 * What is shared by identity costs nothing.
 */
export function bytesBetween(before: Project, after: Project): number {
  return STEP_BYTES + carriedBytes(before, after) + keyBytes(before, after);
}

const CARRIED = ['cells', 'bytes'] as const;
// A restore point is the project before, cell for cell.
const carrying = LISTED_KINDS.filter((k) => k.name !== 'restore point' && hasMarked(k.schema, CARRIED));

/** Cells and files of records that differ, each against what bore the same id before. */
function carriedBytes(before: Project, after: Project): number {
  const changed = carrying.flatMap((kind) => {
    const was = recordsOf(before, kind),
      is = recordsOf(after, kind);
    if (was === is) return [];
    const [old, now] = [new Set(was), new Set(is)];
    return [{ kind, gone: was.filter((r) => !now.has(r)), fresh: is.filter((r) => !old.has(r)) }];
  });
  const last = new Map<string | undefined, unknown>();
  for (const { kind, gone } of changed)
    for (const r of gone) eachMarked(kind.schema, CARRIED, r, (_, v, at) => last.set(at.at(-1), v));
  let total = 0;
  for (const { kind, fresh } of changed) {
    for (const r of fresh) {
      eachMarked(kind.schema, CARRIED, r, (mark, v, at) => {
        const old = last.get(at.at(-1));
        if (v === old) return;
        total +=
          mark.mark === 'cells' ? (v as VoxelGrid).bytesSince(old as VoxelGrid | undefined) : (v as Uint8Array).length;
      });
    }
  }
  return total;
}

function keyBytes(before: Project, after: Project): number {
  if (before.clips === after.clips) return 0;
  const known = new Set<object>(
    before.clips.flatMap((c) => c.lanes.flatMap((l) => CHANNELS.map((channel) => l[channel]))),
  );
  let keys = 0;
  for (const clip of after.clips)
    for (const lane of clip.lanes) for (const c of CHANNELS) if (!known.has(lane[c])) keys += lane[c].length;
  return keys * KEY_BYTES;
}
