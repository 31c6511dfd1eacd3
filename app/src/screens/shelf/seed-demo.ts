import * as z from 'zod';
import { readProject, shelve } from '../../shell/files/project-files';
import { getSetting, putSetting } from '../../storage/settings-store';
import { listShelf } from '../../storage/shelf';

/** Puts the demo projects on an empty shelf at the first visit, through the ordinary reader. Gives the id of the one to open then. */
export async function seedDemo(): Promise<string | null> {
  if (await getSetting('seeded', z.boolean().catch(false))) return null;
  if ((await listShelf()).length > 0) return null;
  const ids: string[] = [];
  // The one to open comes last, so that it stands first on the shelf.
  for (const file of ['lamp-post', 'row-boat', 'oswin-rigged', 'oswin', 'tamsin']) {
    const reply = await fetch(`/content/${file}.sphal`);
    if (!reply.ok)
      throw new Error('The demo projects could not be loaded. You can begin a project of your own all the same.');
    ids.push(await shelve(await readProject(new Uint8Array(await reply.arrayBuffer())), true));
  }
  await putSetting('seeded', true);
  return ids.at(-1)!;
}
