import { createRouter, createWebHistory } from 'vue-router'
import ShedPage from './shed/ShedPage.vue'

/** Every place has an address; only the shed is loaded at once. */
export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', name: 'shed', component: ShedPage },
    { path: '/loops/:tag', name: 'loop', component: () => import('./loop/LoopPage.vue'), props: true },
    { path: '/loops/:tag/measure', name: 'measure', component: () => import('./measure/MeasurePage.vue'), props: true },
    { path: '/loops/:tag/sharpened', name: 'sharpened', component: () => import('./sharpened/SharpenedPage.vue'), props: true },
    { path: '/loops/:tag/note/:kind', name: 'note', component: () => import('./note/NotePage.vue'), props: true },
    { path: '/add/loop', name: 'addLoop', component: () => import('./add/AddLoopPage.vue') },
    { path: '/add/saw', name: 'addSaw', component: () => import('./add/AddSawPage.vue') },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./parts/NowherePage.vue') },
  ],
})
