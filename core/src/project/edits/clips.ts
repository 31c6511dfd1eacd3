import { type Channel, type Clip, type Id, PLAIN_CLIP, type Project, TICKS, find, freeName, must, replaceRecord } from '../../model';
import { type AnyKey, type KeyRef, keysOf, removeKeys, setKey, shiftKeys, updateLane } from '../../motion';
import type { Easing } from '../../model';
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
    if (!(a.fps >= 1 && a.fps <= 240) || !(a.frames >= 1)) throw new EditError('A clip needs at least one frame and 1 to 240 frames per second.');
    const clip: Clip = {
      id: ctx.newId(), name: freeName(a.name, project.clips.map((c) => c.name)),
      length: Math.round((a.frames * TICKS) / a.fps), fps: a.fps, loop: a.loop, lanes: [], ...PLAIN_CLIP,
    };
    return { ...project, clips: [...project.clips, clip] };
  },
});

/** Name, length in frames, frames per second, loop. Keys beyond a shorter end stay and are not played. */
export const setClipEdit = defineEdit<{ clip: Id; name?: string; frames?: number; fps?: number; loop?: boolean }>({
  name: 'setClip',
  label: (a, p) => `Change clip ${nameOf(p, a.clip)}`,
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, (clip) => {
    const fps = a.fps ?? clip.fps;
    if (!(fps >= 1 && fps <= 240)) throw new EditError('Frames per second run from 1 to 240.');
    if (a.frames !== undefined && !(a.frames >= 1)) throw new EditError('A clip needs at least one frame.');
    const name = a.name?.trim() ? freeName(a.name.trim(), project.clips.filter((c) => c.id !== clip.id).map((c) => c.name)) : clip.name;
    return { ...clip, name, fps, loop: a.loop ?? clip.loop, length: a.frames === undefined ? clip.length : Math.round((a.frames * TICKS) / fps) };
  }),
});

export const setKeyEdit = defineEdit<{ clip: Id; bone: Id; channel: Channel; key: AnyKey }>({
  name: 'setKey',
  label: (a, p) => `Key ${find(p.rig.bones, a.bone)?.name ?? 'bone'}, ${a.channel}`,
  touches: (a) => [a.clip],
  run(project, a) {
    must(project.rig.bones, a.bone, 'bone');
    const clip = must(project.clips, a.clip, 'clip');
    if (!Number.isInteger(a.key.time) || a.key.time < 0 || a.key.time > clip.length) throw new EditError(`A key of "${clip.name}" stands between its start and its end.`);
    return changeClip(project, a.clip, (c) => setKey(c, a.bone, a.channel, a.key));
  },
});

export const removeKeysEdit = defineEdit<{ clip: Id; keys: readonly KeyRef[] }>({
  name: 'removeKeys',
  label: (a) => `Remove ${a.keys.length === 1 ? 'a key' : `${a.keys.length} keys`}`,
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, (c) => removeKeys(c, a.keys)),
});

export const shiftKeysEdit = defineEdit<{ clip: Id; keys: readonly KeyRef[]; delta: number }>({
  name: 'shiftKeys',
  label: (a) => `Move ${a.keys.length === 1 ? 'a key' : `${a.keys.length} keys`}`,
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, (c) => shiftKeys(c, a.keys, a.delta)),
});

export const easeKeysEdit = defineEdit<{ clip: Id; keys: readonly KeyRef[]; ease: Easing }>({
  name: 'easeKeys',
  label: (a) => `Easing ${a.ease}`,
  touches: (a) => [a.clip],
  run: (project, a) => changeClip(project, a.clip, (clip) => a.keys.reduce((c, r) => updateLane(c, r.bone, (lane) => ({
    ...lane, [r.channel]: keysOf(lane, r.channel).map((k) => (k.time === r.time ? { ...k, ease: a.ease } : k)),
  })), clip)),
});

export const deleteClipEdit = defineEdit<{ clip: Id }>({
  name: 'deleteClip',
  label: (a, p) => `Delete clip ${nameOf(p, a.clip)}`,
  touches: (a) => [a.clip],
  run(project, a, ctx) {
    const clip = must(project.clips, a.clip, 'clip');
    return {
      ...project, clips: project.clips.filter((c) => c.id !== clip.id),
      bin: [...project.bin, { id: ctx.newId(), kind: 'clip', at: ctx.now, clip }],
    };
  },
});
