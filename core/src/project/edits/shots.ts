import {
  type Id,
  MOST_EDGE,
  MOST_SAMPLES,
  type Project,
  type Shot,
  blobTypeOf,
  find,
  freeName,
  makeBlob,
  makeShot,
  moveRecord,
  must,
  replaceRecord,
} from '../../model';
import { recordToBin } from '../bin';
import { withBlobs } from '../blobs';
import { EditError, defineEdit } from '../edit';

const nameOf = (p: Project, id: Id): string => find(p.shots, id)?.name ?? 'shot';

export const addShotEdit = defineEdit<{ name: string; shot?: Partial<Omit<Shot, 'id' | 'name'>> }>({
  name: 'addShot',
  label: (a) => `New shot ${a.name}`,
  touches: () => [],
  run: (project, a, ctx) => ({
    ...project,
    shots: [
      ...project.shots,
      makeShot(
        ctx.newId(),
        freeName(
          a.name,
          project.shots.map((s) => s.name),
        ),
        a.shot,
      ),
    ],
  }),
});

export const editShotEdit = defineEdit<{ shot: Id; change: Partial<Omit<Shot, 'id'>> }>({
  name: 'editShot',
  label: (a, p) => `Change shot ${nameOf(p, a.shot)}`,
  touches: (a) => [a.shot],
  run(project, a) {
    const shot = must(project.shots, a.shot, 'shot');
    const next: Shot = { ...shot, ...a.change };
    const { size, samples } = next.output;
    if (size.some((v) => !Number.isInteger(v) || v < 1 || v > MOST_EDGE)) throw new EditError('shots.size');
    if (!Number.isInteger(samples) || samples < 1 || samples > MOST_SAMPLES) throw new EditError('shots.samples');
    return JSON.stringify(next) === JSON.stringify(shot)
      ? project
      : { ...project, shots: replaceRecord(project.shots, next) };
  },
});

/** What surrounds a shot becomes a picture of one's own, `bytes` of a Radiance file; without a shot a new one has it. */
export const surroundShotEdit = defineEdit<{ shot: Id | null; name: string; bytes: Uint8Array<ArrayBuffer> }>({
  name: 'surroundShot',
  label: (a) => `Surroundings ${a.name}`,
  touches: (a) => (a.shot === null ? [] : [a.shot]),
  run(before, { shot: id, bytes }, ctx) {
    const blob = makeBlob(blobTypeOf(bytes), bytes),
      project = withBlobs(before, [blob]);
    const shot = id === null ? makeShot(ctx.newId(), 'Shot') : must(project.shots, id, 'shot');
    const { light } = shot;
    const next: Shot = { ...shot, light: { ...light, sky: { ...light.sky, kind: 'picture', picture: blob.id } } };
    return { ...project, shots: id === null ? [...project.shots, next] : replaceRecord(project.shots, next) };
  },
});

/** Puts a shot at another place of the list, counted from 0. */
export const moveShotEdit = defineEdit<{ shot: Id; index: number }>({
  name: 'moveShot',
  label: (a, p) => `Reorder shot ${nameOf(p, a.shot)}`,
  touches: (a) => [a.shot],
  run: (project, a) => ({ ...project, shots: moveRecord(project.shots, a.shot, a.index) }),
});

export const deleteShotEdit = defineEdit<{ shot: Id }>({
  name: 'deleteShot',
  label: (a, p) => `Delete shot ${nameOf(p, a.shot)}`,
  touches: (a) => [a.shot],
  run(project, a, ctx) {
    return recordToBin(project, 'shot', a.shot, ctx);
  },
});
