import { createRouter, createWebHistory } from 'vue-router';
import { SCREENS } from './screens/list';
import { useScreens } from './shell/screens';

useScreens(SCREENS);

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: () => import('./screens/shelf/ShelfScreen.vue') },
    {
      path: '/project/:id',
      redirect: (to) => ({ name: 'bench', params: { id: to.params['id'] as string, step: SCREENS[0]!.id } }),
    },
    {
      path: `/project/:id/:step(${SCREENS.map((s) => s.id).join('|')})`,
      name: 'bench',
      component: () => import('./shell/BenchFrame.vue'),
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
