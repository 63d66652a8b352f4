import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it } from 'vitest'
import { useFresh } from './fresh'

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

it('keeps what is new until it was looked at, over a reload', () => {
  useFresh().arrived('a')
  useFresh().arrived('b')
  setActivePinia(createPinia())
  expect([...useFresh().ids]).toEqual(['a', 'b'])
  useFresh().looked('a')
  setActivePinia(createPinia())
  expect([...useFresh().ids]).toEqual(['b'])
})

it('begins empty where what was kept is no list', () => {
  localStorage.setItem('awlsmith.fresh', '{"a"')
  expect(useFresh().ids.size).toBe(0)
})
