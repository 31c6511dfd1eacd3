import { Workbox } from 'workbox-window';
import { say as words } from '../../words';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { HOW_MANY_WINDOWS } from './messages';

/** How long a bench stands open before it is asked again whether there is a newer version, in milliseconds. */
const NOW_AND_THEN = 60 * 60 * 1000;

/**
 * Has the browser keep the whole application, so that it opens without its server. A newer version is told and taken when the
 * artist says so, or when all windows were closed; never in the middle of work.
 */
export async function keepOffline(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  const worker = new Workbox('/service-worker.js');
  worker.addEventListener('waiting', () => tellUpdate(worker));
  // A browser that refuses, as a private window may, still has the application while its server is there.
  if (!(await worker.register().catch(() => undefined))) return;
  let asked = Date.now();
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState !== 'visible' || Date.now() - asked < NOW_AND_THEN) return;
    asked = Date.now();
    // Without a net there is nothing newer to be had.
    void worker.update().catch(() => undefined);
  });
}

function tellUpdate(worker: Workbox): void {
  useNotices().say(words('version.newer'), {
    stays: true,
    action: { label: words('version.take'), run: () => void takeUpdate(worker).catch(useNotices().fail) },
  });
}

async function takeUpdate(worker: Workbox): Promise<void> {
  const session = useSession();
  // Another window would lose the files that it has yet to fetch.
  const windows: unknown = await worker.messageSW({ type: HOW_MANY_WINDOWS });
  if (typeof windows === 'number' && windows > 1) {
    tellUpdate(worker);
    useNotices().say(words('version.otherWindows', { n: windows - 1 }), { kind: 'error' });
    return;
  }
  await session.flush();
  if (!session.idle()) throw new Error(words('version.notSaved'));
  worker.addEventListener('controlling', () => location.reload());
  worker.messageSkipWaiting();
}
