import { KINDS, type Project } from '@sphalerite/core/model';
import * as z from 'zod';
import { sharedPool } from '../workers/pool';
import { type ReadyRigRow, db } from './database';
import { say } from '../words';

/** What a list shows of a ready rig. */
export type ReadyRig = Omit<ReadyRigRow, 'file' | 'id'> & {
  readonly from: { readonly own: string } | { readonly address: string };
};

const summary = {
  name: z.string().min(1).max(120),
  kind: z.enum(KINDS),
  bones: z.int().min(0),
  parts: z.int().min(0),
  clips: z.array(z.string().max(120)),
};
const shippedSchema = z.array(z.object({ ...summary, file: z.string().regex(/^[a-z0-9-]+\.sphal$/) }));
const ownSchema = z.object({ ...summary, id: z.string() });

/** Those that ship with the product, then one's own; rows that make no sense are left out. */
export async function listReadyRigs(): Promise<ReadyRig[]> {
  const reply = await fetch('/content/ready.json');
  if (!reply.ok) throw new Error(say('readyRigs.unreachable'));
  const shipped = shippedSchema.parse(await reply.json());
  const own = (await db.readyRigs.toArray()).flatMap((row) => ownSchema.safeParse(row).data ?? []);
  return [
    ...shipped.map(({ file, ...r }): ReadyRig => ({ ...r, from: { address: `/content/${file}` } })),
    ...own.map(({ id, ...r }): ReadyRig => ({ ...r, from: { own: id } })),
  ];
}

/** The project file of a ready rig. */
export async function readyRigFile(rig: ReadyRig): Promise<Uint8Array<ArrayBuffer>> {
  if ('own' in rig.from) {
    const row = await db.readyRigs.get(rig.from.own);
    if (!row) throw new Error(say('readyRig.gone', { name: rig.name }));
    return row.file;
  }
  const reply = await fetch(rig.from.address);
  if (!reply.ok) throw new Error(say('readyRig.unreachable', { name: rig.name }));
  return new Uint8Array(await reply.arrayBuffer());
}

/** Keeps a project as a ready rig; one of the same name gives way. */
export async function keepReadyRig(id: string, project: Project): Promise<void> {
  const order = { exporter: 'project', subject: { of: 'rig' }, options: {} } as const;
  const { files } = await sharedPool().run('export', (sent) => ({ project: sent.packProject(project, 'all'), order }));
  const file = files[0]!.bytes;
  await db.transaction('rw', db.readyRigs, async () => {
    for (const old of await db.readyRigs.toArray()) if (old.name === project.name) await db.readyRigs.delete(old.id);
    await db.readyRigs.add({
      id,
      name: project.name,
      kind: project.kind,
      bones: project.rig.bones.length,
      parts: project.parts.length,
      clips: project.clips.map((c) => c.name),
      file,
    });
  });
}

export const removeReadyRig = (id: string): Promise<void> => db.readyRigs.delete(id);
