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
import { router } from './router';
import { FIRST_VISIT } from './shell/first-visit';
import { getSetting } from './storage/settings-store';
import { useNotices } from './stores/notices';
import { useSettings } from './stores/settings';

const app = createApp(App).use(createPinia());
const known = getSetting('seeded', z.boolean().catch(false)).catch(() => true);
await useSettings()
  .load()
  .catch((e: unknown) =>
    useNotices().fail(`Your settings could not be read and stand at their beginnings. ${String(e)}`),
  );
app.provide(FIRST_VISIT, !(await known));
app.use(router).mount('#app');
