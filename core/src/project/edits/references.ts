import { type Id, type Reference, find, must, replaceRecord } from '../../model';
import { withBlob } from '../blobs';
import { EditError, defineEdit } from '../edit';

/** A picture to work from, `bytes` of a PNG, JPEG or WebP file. */
export const addReferenceEdit = defineEdit<
  Omit<Reference, 'id' | 'hidden' | 'opacity' | 'blob'> & {
    bytes: Uint8Array<ArrayBuffer>;
    opacity?: number;
  }
>({
  name: 'addReference',
  label: (a) => `Reference picture ${a.name}`,
  touches: (a) => [a.part],
  run(before, { bytes, ...a }, ctx) {
    must(before.parts, a.part, 'part');
    const { project, blob } = withBlob(before, a.name, bytes);
    const reference: Reference = {
      id: ctx.newId(),
      name: a.name,
      part: a.part,
      plane: a.plane,
      blob,
      at: a.at,
      size: a.size,
      opacity: a.opacity ?? 0.5,
      hidden: false,
    };
    return { ...project, references: [...project.references, reference] };
  },
});

export const setReferenceEdit = defineEdit<{
  reference: Id;
  change: Partial<Omit<Reference, 'id' | 'blob' | 'part'>>;
}>({
  name: 'setReference',
  label: (a, p) => `Change reference picture ${find(p.references, a.reference)?.name ?? ''}`,
  touches: (a) => [a.reference],
  run(project, a) {
    const r = must(project.references, a.reference, 'reference picture');
    const next = { ...r, ...a.change };
    if (!next.size.every((s) => s > 0) || !(next.opacity >= 0 && next.opacity <= 1))
      throw new EditError('references.size');
    return JSON.stringify(next) === JSON.stringify(r)
      ? project
      : { ...project, references: replaceRecord(project.references, next) };
  },
});

export const deleteReferenceEdit = defineEdit<{ reference: Id }>({
  name: 'deleteReference',
  label: (a, p) => `Remove reference picture ${find(p.references, a.reference)?.name ?? ''}`,
  touches: (a) => [a.reference],
  run: (project, a) => ({ ...project, references: project.references.filter((r) => r.id !== a.reference) }),
});
