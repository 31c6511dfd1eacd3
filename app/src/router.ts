import { createRouter, createWebHistory } from 'vue-router';
import { SCREENS } from './screens/list';
import { useScreens } from './shell/screens';

useScreens(SCREENS);

const bench = () => import('./shell/BenchFrame.vue');
/** Begins to fetch the bench with its first screen, before it is asked for. */
export const fetchBench = (): Promise<unknown> => Promise.allSettled([bench(), SCREENS[0]!.pieces()]);

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
      component: bench,
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
