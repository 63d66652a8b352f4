import 'vuetify/styles'
import '@fontsource/barlow/latin-400.css'
import '@fontsource/barlow/latin-500.css'
import '@fontsource/barlow/latin-600.css'
import '@fontsource/barlow-semi-condensed/latin-400.css'
import '@fontsource/barlow-semi-condensed/latin-500.css'
import '@fontsource/barlow-semi-condensed/latin-600.css'
import '@fontsource/spline-sans-mono/latin-400.css'
import './style/main.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { learnFromLoading } from './view/line'
import { router } from './router'
import { vuetify } from './vuetify'

learnFromLoading()
createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app')
