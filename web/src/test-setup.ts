import { config } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach } from 'vitest'
import { vuetify } from './vuetify'

// happy-dom has no layout, so nothing ever changes size
class NoResize implements ResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver ??= NoResize

// nor a part of the page that is seen, by which menus find their place
if (typeof visualViewport === 'undefined') {
  Object.defineProperty(globalThis, 'visualViewport', { value: new EventTarget() })
}

config.global.plugins = [vuetify]
beforeEach(() => setActivePinia(createPinia()))
