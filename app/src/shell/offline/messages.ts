/** What the page tells its service worker: let the newer version take over (the word that workbox-window sends). */
export const TAKE_OVER = 'SKIP_WAITING';
/** What the page asks it: how many windows of the application are open. */
export const HOW_MANY_WINDOWS = 'how many windows';
