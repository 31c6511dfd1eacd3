import { shelveProjectFile } from '../../shell/project-files';
import { getSetting, listShelf, putSetting } from '../../storage/shelf';

/** Puts the demo project on an empty shelf at the first visit, through the ordinary reader. Gives its id then. */
export async function seedDemo(): Promise<string | null> {
  if (await getSetting('seeded', false)) return null;
  if ((await listShelf()).length > 0) return null;
  const reply = await fetch('/content/tamsin.sphal');
  if (!reply.ok) throw new Error('The demo project could not be loaded. You can begin a project of your own all the same.');
  const { id } = await shelveProjectFile(new Uint8Array(await reply.arrayBuffer()), true);
  await putSetting('seeded', true);
  return id;
}
