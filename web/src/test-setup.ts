import { config } from '@vue/test-utils'
import { vuetify } from './vuetify'

// happy-dom has no layout, so nothing ever changes size
class NoResize implements ResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver ??= NoResize

config.global.plugins = [vuetify]
