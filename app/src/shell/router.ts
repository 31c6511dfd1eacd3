import { createRouter, createWebHistory } from 'vue-router';
import { STEPS } from './screen';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: () => import('../screens/shelf/ShelfScreen.vue') },
    { path: '/project/:id', redirect: (to) => ({ name: 'bench', params: { id: to.params['id'] as string, step: 'build' } }) },
    { path: `/project/:id/:step(${STEPS.join('|')})`, name: 'bench', component: () => import('./BenchFrame.vue') },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
