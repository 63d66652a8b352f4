import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { nextTick } from 'vue'
import { beforeEach, expect, it, vi } from 'vitest'
import { useKeys } from '@/stores/keys'
import KeyHelp from './KeyHelp.vue'

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
  document.body.innerHTML = ''
})

async function opened() {
  const help = mount(KeyHelp, { props: { modelValue: true }, attachTo: document.body })
  await nextTick()
  await vi.waitFor(() => expect(document.querySelector('.key')).not.toBeNull())
  return help
}
const key = (name: string) =>
  [...document.querySelectorAll<HTMLElement>('.key')].find((one) => one.textContent?.trim() === name)!

it('exchanges a key for the one that is pressed next', async () => {
  await opened()
  key('p').click()
  await nextTick()
  expect(document.body.textContent).toContain('Press the key that p shall become')
  document.querySelector('.card')!.dispatchEvent(new KeyboardEvent('keydown', { key: 'q', bubbles: true }))
  await nextTick()
  expect(useKeys().now('p')).toBe('q')
  expect(key('q')).toBeDefined()
})

it('leaves a key as it is on Escape', async () => {
  await opened()
  key('p').click()
  await nextTick()
  document
    .querySelector('.card')!
    .dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))
  await nextTick()
  expect(useKeys().now('p')).toBe('p')
  expect(document.body.textContent).toContain('Click a key to exchange it')
})
