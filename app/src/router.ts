import { createRouter, createWebHistory } from 'vue-router';
import { SCREENS } from './screens/list';
import { useScreens } from './shell/screens';

useScreens(SCREENS);

const bench = () => import('./shell/BenchFrame.vue');
/** Begins to fetch the bench with the screen that an address leads to, the first one by default, before it is asked for. */
export function fetchBench(path: string): Promise<unknown> {
  const screen = SCREENS.find((s) => path.endsWith(`/${s.id}`)) ?? SCREENS[0]!;
  return Promise.allSettled([bench(), screen.pieces()]);
}

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
