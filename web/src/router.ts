import { createRouter, createWebHistory } from 'vue-router'
import Shelf from './pages/Shelf.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/shelf' },
    { path: '/shelf', name: 'shelf', component: Shelf },
    { path: '/bench/:clip', name: 'bench', component: () => import('./pages/Bench.vue'), props: true },
    { path: '/sheet/:clip', name: 'sheet', component: () => import('./pages/Sheet.vue'), props: true },
    { path: '/dispatch', name: 'dispatch', component: () => import('./pages/Dispatch.vue') },
    { path: '/library', name: 'library', component: () => import('./pages/Library.vue') },
    { path: '/guide', name: 'guide', component: () => import('./pages/Guide.vue') },
    { path: '/sign-in', name: 'sign-in', component: () => import('./pages/SignIn.vue') },
    { path: '/:rest(.*)', redirect: '/shelf' },
  ],
})
