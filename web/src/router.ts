import { createRouter, createWebHistory } from 'vue-router'
import Bench from './pages/Bench.vue'
import Dispatch from './pages/Dispatch.vue'
import Library from './pages/Library.vue'
import Shelf from './pages/Shelf.vue'
import Sheet from './pages/Sheet.vue'
import SignIn from './pages/SignIn.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/shelf' },
    { path: '/shelf', name: 'shelf', component: Shelf },
    { path: '/bench/:clip', name: 'bench', component: Bench, props: true },
    { path: '/sheet/:clip', name: 'sheet', component: Sheet, props: true },
    { path: '/dispatch', name: 'dispatch', component: Dispatch },
    { path: '/library', name: 'library', component: Library },
    { path: '/sign-in', name: 'sign-in', component: SignIn },
    { path: '/:rest(.*)', redirect: '/shelf' },
  ],
})
