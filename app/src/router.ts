import { createRouter, createWebHistory } from 'vue-router';
import { STEPS, type ScreenModule, type Step } from './shell/screen';

/** Every screen of the bench, fetched when it is first shown. */
const screens: Record<Step, () => Promise<ScreenModule>> = {
  build: () => import('./screens/build').then((m) => m.screen),
  rig: () => import('./screens/rig').then((m) => m.screen),
  animate: () => import('./screens/animate').then((m) => m.screen),
  light: () => import('./screens/light').then((m) => m.screen),
  ship: () => import('./screens/ship').then((m) => m.screen),
};

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: () => import('./screens/shelf/ShelfScreen.vue') },
    {
      path: '/project/:id',
      redirect: (to) => ({ name: 'bench', params: { id: to.params['id'] as string, step: 'build' } }),
    },
    {
      path: `/project/:id/:step(${STEPS.join('|')})`,
      name: 'bench',
      component: () => import('./shell/BenchFrame.vue'),
      props: { screens },
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
