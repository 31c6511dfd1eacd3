import { FOLDER_LIST, type FolderList, type FolderPlan, planFolder, readFolderList } from '@sphalerite/core/files';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import * as z from 'zod';
import { getSetting, putSetting } from '../../storage/settings-store';
import { useDelivery } from '../../stores/delivery';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { say } from '../../words';
import { useShip } from './ship-state';

/** What browsers that can link folders add to a folder's handle. */
interface LinkedHandle extends FileSystemDirectoryHandle {
  queryPermission?(wish: { mode: 'readwrite' }): Promise<PermissionState>;
  requestPermission?(wish: { mode: 'readwrite' }): Promise<PermissionState>;
}
declare global {
  interface Window {
    showDirectoryPicker?(options: { mode: 'readwrite'; id?: string }): Promise<FileSystemDirectoryHandle>;
  }
}

const stored = z
  .object({ handle: z.custom<LinkedHandle>((h) => typeof h === 'object' && h !== null && 'kind' in h), at: z.number() })
  .nullable()
  .catch(null);

async function textOf(folder: LinkedHandle, name: string): Promise<string | null> {
  try {
    return await (await (await folder.getFileHandle(name)).getFile()).text();
  } catch (e) {
    if (e instanceof DOMException && e.name === 'NotFoundError') return null;
    throw e;
  }
}
async function namesIn(folder: LinkedHandle): Promise<string[]> {
  const names: string[] = [];
  for await (const name of (folder as unknown as { keys(): AsyncIterable<string> }).keys()) names.push(name);
  return names;
}
/** Written beside and put in place when it is whole, as browsers do it. */
async function write(folder: LinkedHandle, name: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  const stream = await (await folder.getFileHandle(name, { create: true })).createWritable();
  try {
    await stream.write(bytes);
    await stream.close();
  } catch (e) {
    await stream.abort().catch(() => undefined);
    throw e;
  }
}

/** A folder of the disk that a delivery is written into, over its own files of last time, where the browser can do that. */
export const useLinkedFolder = defineStore('linked folder', () => {
  const session = useSession();
  const delivery = useDelivery();
  const ship = useShip();
  const notices = useNotices();
  const handle = shallowRef<LinkedHandle | null>(null);
  /** When it was last written, in milliseconds since 1970; 0 for never. */
  const at = ref(0);
  const plan = shallowRef<FolderPlan | null>(null);
  const possible = 'showDirectoryPicker' in window;
  const key = computed(() => (session.project ? `folder ${session.project.id} ${delivery.chosen}` : ''));
  watch(
    key,
    async (k) => {
      handle.value = null;
      plan.value = null;
      if (!k) return;
      const known = await getSetting(k, stored);
      if (key.value === k) [handle.value, at.value] = [known?.handle ?? null, known?.at ?? 0];
    },
    { immediate: true },
  );
  const keep = (): Promise<void> => putSetting(key.value, handle.value ? { handle: handle.value, at: at.value } : null);

  async function link(): Promise<void> {
    try {
      handle.value = await window.showDirectoryPicker!({ mode: 'readwrite', id: 'sphalerite' });
      at.value = 0;
      await keep();
    } catch (e) {
      // Nothing was chosen.
      if (!(e instanceof DOMException && e.name === 'AbortError')) notices.fail(e);
    }
  }
  async function unlink(): Promise<void> {
    handle.value = null;
    plan.value = null;
    await keep();
  }

  /** Writes the delivery into the folder: only what changed, never over files that are not from here. */
  async function shipInto(): Promise<void> {
    const folder = handle.value,
      project = session.project;
    if (!folder || !project) return;
    // Asked first: browsers ask only right after a key or a click. After a reload they may have forgotten.
    const may = await folder.requestPermission?.({ mode: 'readwrite' });
    if (may && may !== 'granted') {
      notices.say(say('folder.noPermission', { folder: folder.name }), { kind: 'error' });
      return;
    }
    if (!(await ship.make())) {
      if (ship.trouble) notices.say(ship.trouble, { kind: 'error' });
      return;
    }
    let now = '';
    try {
      const list = readFolderList(await textOf(folder, FOLDER_LIST));
      const next = planFolder(
        `${project.id} ${delivery.chosen}`,
        ship.made!.delivered.files.map((f, i) => ({ ...f, hash: ship.made!.hashes[i]! })),
        list,
        (await namesIn(folder)).filter((n) => n !== FOLDER_LIST),
      );
      const keepList = (list: FolderList): Promise<void> =>
        write(folder, FOLDER_LIST, new TextEncoder().encode(`${JSON.stringify(list, null, 2)}\n`));
      now = FOLDER_LIST;
      await keepList(next.claim);
      for (const f of [...next.fresh, ...next.changed]) {
        now = f.name;
        await write(folder, f.name, f.bytes);
      }
      now = FOLDER_LIST;
      await keepList(next.list);
      plan.value = next;
      at.value = Date.now();
      await keep();
      tell(next, folder.name);
    } catch (e) {
      const name = e instanceof DOMException ? e.name : '';
      if (name === 'NoModificationAllowedError' || name === 'InvalidStateError')
        notices.say(say('folder.locked', { name: now, folder: folder.name }), { kind: 'error' });
      else if (name === 'NotFoundError') notices.say(say('folder.gone', { folder: folder.name }), { kind: 'error' });
      else if (name === 'NotAllowedError')
        notices.say(say('folder.noPermission', { folder: folder.name }), { kind: 'error' });
      else notices.fail(e);
    }
  }
  function tell({ fresh, changed, same, foreign }: FolderPlan, folder: string): void {
    notices.say(say('folder.written', { folder, fresh: fresh.length, changed: changed.length, same: same.length }));
    if (foreign.length > 0)
      notices.say(say('folder.foreign', { n: foreign.length, name: foreign[0]!, folder }), { kind: 'error' });
  }
  return { possible, handle, at, plan, link, unlink, shipInto };
});
