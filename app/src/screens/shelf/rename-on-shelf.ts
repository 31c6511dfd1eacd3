import { apply, editContext, record, renameProjectEdit } from '@sphalerite/core/project';
import { loadStored } from '../../storage/open-stored';
import { freshId, whileHeld } from '../../storage/shelf';

/** Renames a project that is not open, as a step of its history like any other. */
export const renameOnShelf = (id: string, name: string): Promise<void> =>
  whileHeld(id, 'renamed', async (epoch) => {
    const { writer, history } = await loadStored(id, epoch);
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
  });
