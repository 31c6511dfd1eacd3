import { type Quat, type Vec3, normalizeQuat } from '../../math';
import { type Attachment, type Id, freeName, must, replaceRecord } from '../../model';
import { EditError, defineEdit } from '../edit';

/** Puts an attachment point on a bone, of the bone's side. */
export const addAttachmentEdit = defineEdit<{ bone: Id; name: string; t?: Vec3; q?: Quat }>({
  name: 'addAttachment',
  label: (a) => `Attachment point ${a.name}`,
  touches: (a) => [a.bone],
  run(project, a, ctx) {
    const bone = must(project.rig.bones, a.bone, 'bone');
    const name = freeName(
      a.name.trim() || 'Point',
      project.rig.attachments.filter((t) => t.side === bone.side).map((t) => t.name),
    );
    const point: Attachment = {
      id: ctx.newId(),
      name,
      side: bone.side,
      bone: a.bone,
      t: a.t ?? [0, 0, 0],
      q: a.q ?? [0, 0, 0, 1],
    };
    return { ...project, rig: { ...project.rig, attachments: [...project.rig.attachments, point] } };
  },
});

/** Another name, place or direction for an attachment point. */
export const changeAttachmentEdit = defineEdit<{ attachment: Id; name?: string; t?: Vec3; q?: Quat }>({
  name: 'changeAttachment',
  label: (a, p) => `Attachment point ${a.name ?? must(p.rig.attachments, a.attachment, 'attachment point').name}`,
  touches: (a) => [a.attachment],
  run(project, a) {
    const old = must(project.rig.attachments, a.attachment, 'attachment point');
    const wanted = a.name?.trim() ?? old.name;
    if (wanted === '' || wanted.length > 120) throw new EditError('name.length');
    const name = freeName(
      wanted,
      project.rig.attachments.filter((t) => t !== old && t.side === old.side).map((t) => t.name),
    );
    const next: Attachment = { ...old, name, t: a.t ?? old.t, q: a.q ? normalizeQuat(a.q) : old.q };
    if (JSON.stringify(next) === JSON.stringify(old)) return project;
    return { ...project, rig: { ...project.rig, attachments: replaceRecord(project.rig.attachments, next) } };
  },
});

export const deleteAttachmentEdit = defineEdit<{ attachment: Id }>({
  name: 'deleteAttachment',
  label: (a, p) => `No attachment point ${must(p.rig.attachments, a.attachment, 'attachment point').name}`,
  touches: (a) => [a.attachment],
  run: (project, a) => ({
    ...project,
    rig: {
      ...project.rig,
      attachments: project.rig.attachments.filter(
        (t) => t !== must(project.rig.attachments, a.attachment, 'attachment point'),
      ),
    },
  }),
});
