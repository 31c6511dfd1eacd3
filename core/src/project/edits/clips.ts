import { say } from '../../words';
import {
  type Channel,
  type Clip,
  type ClipFloor,
  type Id,
  PLAIN_CLIP,
  type Project,
  TICKS,
  find,
  freeName,
  must,
  replaceRecord,
} from '../../model';
import {
  type AnyKey,
  type CopiedKeys,
  type KeyRef,
  changeKeys,
  closedLoop,
  pasteKeys,
  removeKeys,
  moveSwap,
  removeSwaps,
  retarget,
  rippleClip,
  type Retiming,
  retimeClip,
  retimeKeys,
  secondHalfMirrored,
  setKey,
  setSwap,
  shiftKeys,
} from '../../motion';
import type { Curve, Easing } from '../../model';
import { recordToBin } from '../bin';
import { EditError, defineEdit } from '../edit';

const nameOf = (p: Project, id: Id): string => find(p.clips, id)?.name ?? 'clip';
const changeClip = (project: Project, id: Id, change: (clip: Clip) => Clip): Project => {
  const clips = replaceRecord(project.clips, change(must(project.clips, id, 'clip')));
  return clips === project.clips ? project : { ...project, clips };
};

export const addClipEdit = defineEdit<{ name: string; frames: number; fps: number; loop: boolean }>({
  name: 'addClip',
  label: (a) => `New clip ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    if (!(a.fps >= 1 && a.fps <= 240) || !(a.frames >= 1)) throw new EditError('clips.lengthAndRate');
    const clip: Clip = {
      id: ctx.newId(),
      name: freeName(
        a.name,
        project.clips.map((c) => c.name),
      ),
      length: Math.round((a.frames * TICKS) / a.fps),
      fps: a.fps,
      loop: a.loop,
      lanes: [],
      ...PLAIN_CLIP,
    };
    return { ...project, clips: [...project.clips, clip] };
  },
});

/** @throws EditError when it is no ground */
function checkedFloor(floor: ClipFloor | null): ClipFloor | null {
  if (floor && !([floor.height, floor.rise, floor.run].every((v) => Math.abs(v) <= 10_000) && floor.run >= 0))
    throw new EditError('clips.floor');
  return floor;
}

/** Name, length in frames, frames per second, loop, ground. Keys beyond a shorter end stay and are not played. */
export const setClipEdit = defineEdit<{
  clip: Id;
  name?: string;
  frames?: number;
  fps?: number;
  loop?: boolean;
  ships?: boolean;
  floor?: ClipFloor | null;
}>({
  name: 'setClip',
  label: (a, p) => `Change clip ${nameOf(p, a.clip)}`,
  touches: (a) => [a.clip],
  run: (project, a) =>
    changeClip(project, a.clip, (clip) => {
      const fps = a.fps ?? clip.fps;
      if (!(fps >= 1 && fps <= 240)) throw new EditError('clips.rate');
      if (a.frames !== undefined && !(a.frames >= 1)) throw new EditError('clips.length');
      const name = a.name?.trim()
        ? freeName(
            a.name.trim(),
            project.clips.filter((c) => c.id !== clip.id).map((c) => c.name),
          )
        : clip.name;
      return {
        ...clip,
        name,
        fps,
        loop: a.loop ?? clip.loop,
        ships: a.ships ?? clip.ships,
        floor: a.floor === undefined ? clip.floor : checkedFloor(a.floor),
        length: a.frames === undefined ? clip.length : Math.round((a.frames * TICKS) / fps),
      };
    }),
});

export const setKeyEdit = defineEdit<{ clip: Id; bone: Id; channel: Channel; key: AnyKey }>({
  name: 'setKey',
  label: (a, p) => `Key ${find(p.rig.bones, a.bone)?.name ?? 'bone'}, ${a.channel}`,
  touches: (a) => [a.clip],
  run(project, a) {
    must(project.rig.bones, a.bone, 'bone');
    const clip = must(project.clips, a.clip, 'clip');
    if (!Number.isInteger(a.key.time) || a.key.time < 0 || a.key.time > clip.length)
      throw new EditError('clips.keyOutside', { clip: clip.name });
    return changeClip(project, a.clip, (c) => setKey(c, a.bone, a.channel, a.key));
  },
});

export const removeKeysEdit = defineEdit<{ clip: Id; keys: readonly KeyRef[] }>({
  name: 'removeKeys',
  label: (a) => say('label.removeKeys', { n: a.keys.length }),
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, (c) => removeKeys(c, a.keys)),
});

export const shiftKeysEdit = defineEdit<{ clip: Id; keys: readonly KeyRef[]; delta: number }>({
  name: 'shiftKeys',
  label: (a) => say('label.moveKeys', { n: a.keys.length }),
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, (c) => shiftKeys(c, a.keys, a.delta)),
});

/** Easing of keys to their next ones; `curve` for one's own. */
export const easeKeysEdit = defineEdit<{ clip: Id; keys: readonly KeyRef[]; ease: Easing; curve?: Curve }>({
  name: 'easeKeys',
  label: (a) => `Easing ${a.ease}`,
  touches: (a) => [a.clip],
  run(project, a) {
    if (a.curve && !(a.curve.every(Number.isFinite) && [a.curve[0], a.curve[2]].every((x) => x >= 0 && x <= 1)))
      throw new EditError('clips.handles');
    return changeClip(project, a.clip, (clip) =>
      changeKeys(clip, a.keys, (k) => {
        const { curve: _old, ...rest } = k;
        return { ...rest, ease: a.ease, ...(a.ease === 'curve' && a.curve ? { curve: a.curve } : {}) };
      }),
    );
  },
});

/** Draws keys together or apart in time: some, or with null all of the clip with what it wears. */
export const retimeEdit = defineEdit<Retiming & { readonly clip: Id; readonly keys: readonly KeyRef[] | null }>({
  name: 'retime',
  risky: () => true,
  label: (a, p) =>
    a.keys
      ? say('label.scaleKeys', { n: a.keys.length, percent: Math.round(a.by * 100) })
      : say('label.retimeClip', { clip: nameOf(p, a.clip), percent: Math.round(a.by * 100) }),
  touches: (a) => [a.clip],
  run(project, { clip, keys, ...r }) {
    if (!(r.by > 0 && r.by <= 100)) throw new EditError('clips.timeScale');
    return changeClip(project, clip, (c) => (keys ? retimeKeys(c, keys, r) : retimeClip(c, r)));
  },
});

/** Sets copied keys from a moment on; bones that are gone are left out. */
export const pasteKeysEdit = defineEdit<{ clip: Id; copied: CopiedKeys; at: number; what?: string }>({
  name: 'pasteKeys',
  label: (a) => a.what ?? say('label.pasteKeys', { n: a.copied.keys.length }),
  touches: (a) => [a.clip],
  run(project, a) {
    const keys = a.copied.keys.filter((k) => find(project.rig.bones, k.bone));
    if (keys.length === 0) throw new EditError('clips.noBone');
    return changeClip(project, a.clip, (c) => pasteKeys(c, { keys }, a.at));
  },
});

/** Puts time in after a moment, or takes it out, with everything that follows. */
export const rippleClipEdit = defineEdit<{ clip: Id; from: number; by: number }>({
  name: 'rippleClip',
  label: (a, p) => `${a.by > 0 ? 'Insert' : 'Take out'} time in ${nameOf(p, a.clip)}`,
  touches: (a) => [a.clip],
  run: (project, a) => (a.by === 0 ? project : changeClip(project, a.clip, (c) => rippleClip(c, a.from, a.by))),
});

/** Half a walk makes the other half. */
export const mirrorHalfEdit = defineEdit<{ clip: Id }>({
  name: 'mirrorHalf',
  label: (a, p) => `Mirror the first half of ${nameOf(p, a.clip)} into the second`,
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, (c) => secondHalfMirrored(c, project.rig)),
});

/** The last pose becomes the first. */
export const closeLoopEdit = defineEdit<{ clip: Id }>({
  name: 'closeLoop',
  label: (a, p) => `Close the loop of ${nameOf(p, a.clip)}`,
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, closedLoop),
});

/** What a set of alternates wears from a moment of the clip on; null for nothing. */
export const swapKeyEdit = defineEdit<{ clip: Id; alternateSet: Id; time: number; mount: Id | null }>({
  name: 'swapKey',
  label: (a, p) =>
    `${find(p.rig.alternateSets, a.alternateSet)?.name ?? 'Alternates'}: ${a.mount === null ? 'nothing' : (find(p.parts, find(p.rig.mounts, a.mount)?.part ?? null)?.name ?? 'part')}`,
  touches: (a) => [a.clip],
  run(project, a) {
    must(project.rig.alternateSets, a.alternateSet, 'set of alternates');
    if (a.mount !== null && must(project.rig.mounts, a.mount, 'mounted part').alternateSet !== a.alternateSet)
      throw new EditError('clips.notAlternate');
    const { worn } = must(project.rig.alternateSets, a.alternateSet, 'set of alternates');
    // Until the first key it wears what it wears at rest.
    return changeClip(project, a.clip, (c) =>
      setSwap(
        a.time > 0 && !c.swaps.some((l) => l.alternateSet === a.alternateSet) ? setSwap(c, a.alternateSet, 0, worn) : c,
        a.alternateSet,
        a.time,
        a.mount,
      ),
    );
  },
});

/** A swap key is moved in time, within the clip. */
export const moveSwapEdit = defineEdit<{ clip: Id; alternateSet: Id; time: number; to: number }>({
  name: 'moveSwap',
  label: () => 'Move a swap key',
  touches: (a) => [a.clip],
  run: (project, a) =>
    changeClip(project, a.clip, (c) =>
      moveSwap(c, a.alternateSet, a.time, Math.max(0, Math.min(c.length, Math.round(a.to)))),
    ),
});

export const removeSwapsEdit = defineEdit<{ clip: Id; alternateSet: Id; times: readonly number[] }>({
  name: 'removeSwaps',
  label: () => 'Remove swap keys',
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, (c) => removeSwaps(c, a.alternateSet, a.times)),
});

export const duplicateClipEdit = defineEdit<{ clip: Id }>({
  name: 'duplicateClip',
  label: (a, p) => `Duplicate ${nameOf(p, a.clip)}`,
  touches: (a) => [a.clip],
  run(project, a, ctx) {
    const clip = must(project.clips, a.clip, 'clip');
    return {
      ...project,
      clips: [
        ...project.clips,
        {
          ...clip,
          id: ctx.newId(),
          name: freeName(
            clip.name,
            project.clips.map((c) => c.name),
          ),
        },
      ],
    };
  },
});

/** A clip of another project on this rig, by bone names, with proportions. */
export const retargetClipEdit = defineEdit<{ source: Project; clip: Id }>({
  name: 'retargetClip',
  risky: () => true,
  label: (a) => `${find(a.source.clips, a.clip)?.name ?? 'Clip'} from ${a.source.name}`,
  touches: () => [],
  run(project, a, ctx) {
    const clip = must(a.source.clips, a.clip, 'clip'),
      { lanes } = retarget(clip, a.source, project);
    if (lanes.length === 0) throw new EditError('clips.noNames', { clip: clip.name });
    return {
      ...project,
      clips: [
        ...project.clips,
        {
          ...clip,
          lanes,
          swaps: [],
          id: ctx.newId(),
          name: freeName(
            clip.name,
            project.clips.map((c) => c.name),
          ),
        },
      ],
    };
  },
});

export const deleteClipEdit = defineEdit<{ clip: Id }>({
  name: 'deleteClip',
  label: (a, p) => `Delete clip ${nameOf(p, a.clip)}`,
  touches: (a) => [a.clip],
  run(project, a, ctx) {
    return recordToBin(project, 'clip', a.clip, ctx);
  },
});
