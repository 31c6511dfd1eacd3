import { clientsClaim } from 'workbox-core';
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { HOW_MANY_WINDOWS, TAKE_OVER } from './messages';

/** Files of this build with what tells their versions apart, written in by `scripts/build.mjs`. */
declare const BUILT_FILES: { url: string; revision: string | null }[];

/**
 * Keeps the whole application in the browser, so that it opens and works without its server. The replies are kept with the
 * server's headers, so that isolation holds offline too. A new version waits until it is asked to take over.
 */
const scope = self as unknown as ServiceWorkerGlobalScope;

precacheAndRoute(BUILT_FILES, { cleanURLs: false });
cleanupOutdatedCaches();
// Every address of the application gives the one page, as the server does it.
registerRoute(
  new NavigationRoute(createHandlerBoundToURL('/index.html'), { allowlist: [/^\/$/, /^\/project\/[^/]+(\/[^/]+)?$/] }),
);
clientsClaim();

scope.addEventListener('message', (e: ExtendableMessageEvent) => {
  if (e.data?.type === TAKE_OVER) void scope.skipWaiting();
  if (e.data?.type === HOW_MANY_WINDOWS)
    e.waitUntil(
      scope.clients
        .matchAll({ type: 'window', includeUncontrolled: true })
        .then((windows) => e.ports[0]?.postMessage(windows.length)),
    );
});
