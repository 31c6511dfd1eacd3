import * as z from 'zod';
import { getSetting, putSetting } from '../storage/settings-store';
import { listShelf, putOnShelf } from '../storage/shelf';
import { say } from '../words';
import { readProject } from './files/project-files';

/** The project that a first visit opens. */
const FIRST = 'night-market';
/** Those that come onto the shelf behind it. */
const OTHERS = ['tamsin', 'oswin', 'oswin-rigged', 'row-boat', 'lamp-post', 'sedge-bank'];
/** What of them is still to come: a visit may end before all are there. */
const stillToCome = z.array(z.string()).catch([]);

async function bytesOf(file: string): Promise<Uint8Array<ArrayBuffer>> {
  const reply = await fetch(`/content/${file}`);
  if (!reply.ok) throw new Error(say('demo.unreachable'));
  return new Uint8Array(await reply.arrayBuffer());
}
/** Through the ordinary reader, with the picture that comes along. `before` milliseconds older than now, to stand behind. */
async function put(name: string, before: number): Promise<string> {
  const [file, picture] = await Promise.all([bytesOf(`${name}.sphal`), bytesOf(`${name}.png`)]);
  const project = await readProject(file);
  await putOnShelf(project, { picture, modified: Date.now() - before });
  return project.id;
}

/** Puts the demo on an empty shelf at the first visit. Gives its id, to be opened then; null at every other. */
export async function seedDemo(): Promise<string | null> {
  if (await getSetting('seeded', z.boolean().catch(false))) return null;
  if ((await listShelf()).length > 0) return null;
  const id = await put(FIRST, 0);
  await putSetting('demosToCome', OTHERS);
  await putSetting('seeded', true);
  localStorage.setItem('visited', 'yes');
  return id;
}

let coming: Promise<boolean> | null = null;
/** Puts the other demo projects on the shelf, once there is time; true if any came. Asked again meanwhile, it is the same work. */
export const seedOthers = (): Promise<boolean> => (coming ??= putOthers().finally(() => (coming = null)));
async function putOthers(): Promise<boolean> {
  let left = await getSetting('demosToCome', stillToCome);
  if (left.length === 0) return false;
  for (const name of left) {
    await put(name, 60_000 * (1 + OTHERS.indexOf(name)));
    left = left.filter((n) => n !== name);
    await putSetting('demosToCome', left);
  }
  return true;
}
