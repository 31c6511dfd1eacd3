import { apply, editContext, record, renameProjectEdit } from '@sphalerite/core/project';
import { holdProject } from '../../storage/lock';
import { ProjectWriter } from '../../storage/project-store';
import { freshId } from '../../storage/shelf';

/** Renames a project that is not open, as a step of its history like any other. */
export async function renameOnShelf(id: string, name: string): Promise<void> {
  const hold = await holdProject(id, false, () => undefined);
  try {
    if (!hold.writable) throw new Error('This project is open in another window. Rename it there.');
    const writer = new ProjectWriter(id, hold.epoch);
    const history = await writer.load();
    const now = history.entries[history.now]!;
    const project = apply(now.project, renameProjectEdit, { name }, editContext(freshId(), Date.now()));
    await writer.save(
      record(history, {
        label: `Rename the project to ${name}`,
        at: Date.now(),
        where: 'Shelf',
        project,
        viewBefore: now.viewAfter,
        viewAfter: now.viewAfter,
      }),
    );
  } finally {
    hold.release();
  }
}
