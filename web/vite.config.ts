import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import vuetify from 'vite-plugin-vuetify'
import { defineConfig } from 'vitest/config'
import { guide } from './guidePlugin.ts'

/** Specs that put other modules in the place of real ones, or look at what a module keeps. */
const alone = ['src/stores/uploads.spec.ts', 'src/stores/earlyKeys.spec.ts']

export default defineConfig({
  plugins: [guide(), vue(), vuetify({ autoImport: true })],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  server: {
    fs: { allow: ['..'] },
    proxy: { '/api': 'http://127.0.0.1:8480', '/enter': 'http://127.0.0.1:8480' },
  },
  test: {
    environment: 'happy-dom',
    server: { deps: { inline: ['vuetify'] } },
    setupFiles: ['src/test-setup.ts'],
    // one world for all: setting Vuetify up for each file took longer than the tests
    isolate: false,
    projects: [
      { extends: true, test: { name: 'shared', exclude: ['node_modules', ...alone] } },
      { extends: true, test: { name: 'alone', include: alone, isolate: true } },
    ],
  },
})
