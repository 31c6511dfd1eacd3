import '@fontsource/figtree/400.css';
import '@fontsource/figtree/500.css';
import '@fontsource/figtree/600.css';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/500.css';
import 'element-plus/theme-chalk/base.css';
import 'element-plus/theme-chalk/el-tooltip.css';
import 'element-plus/theme-chalk/el-popper.css';
import './styles/tokens.css';
import './styles/base.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import * as z from 'zod';
import App from './App.vue';
import { fetchBench, router } from './router';
import { GREETING } from './shell/first-visit';
import { getSetting } from './storage/settings-store';
import { useNotices } from './stores/notices';
import { useSettings } from './stores/settings';
import { say } from './words';

const app = createApp(App).use(createPinia());
// What the bench needs is fetched while the settings are read.
if (document.documentElement.dataset['first']) void fetchBench(`/${GREETING.step}`);
else if (location.pathname.startsWith('/project/')) void fetchBench(location.pathname);
const seeding = async (): Promise<string | null> => (await import('./shell/seed-demo')).seedDemo();
const known = getSetting('seeded', z.boolean().catch(false)).catch(() => true);
await useSettings()
  .load()
  .catch((e: unknown) => useNotices().fail(say('settings.unreadable', { why: String(e) })));
// The very first visit begins at the bench, not at a list.
if (!(await known) && location.pathname === '/')
  await seeding()
    .then(async (id) => id && (await router.replace({ name: 'bench', params: { id, step: GREETING.step } })))
    .catch(useNotices().fail);
app.use(router).mount('#app');
