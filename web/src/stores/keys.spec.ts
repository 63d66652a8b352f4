import { createPinia, setActivePinia } from 'pinia'
import { nextTick } from 'vue'
import { beforeEach, expect, it } from 'vitest'
import { useKeys } from './keys'

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

it('takes single keys as they are', () => {
  expect(useKeys().meant('p')).toBe('p')
})

it('takes none when they are switched off, but space and keys with names', () => {
  const keys = useKeys()
  keys.single = false
  expect(keys.meant('p')).toBeUndefined()
  expect(keys.meant('?')).toBeUndefined()
  expect(keys.meant(' ')).toBe(' ')
  expect(keys.meant('Home')).toBe('Home')
})

it('lets two keys change places', () => {
  const keys = useKeys()
  expect(keys.change('p', 'k')).toBe(true)
  expect(keys.meant('k')).toBe('p')
  expect(keys.meant('p')).toBe('k')
  expect(keys.now('k')).toBe('p')
  keys.change('p', 'p')
  expect(keys.changed).toEqual({})
})

it('leaves nothing behind where a key was that was given away', () => {
  const keys = useKeys()
  keys.change('p', 'z')
  expect(keys.meant('z')).toBe('p')
  expect(keys.meant('p')).toBe('z')
})

it('keeps what was changed over a reload', async () => {
  useKeys().change('p', 'z')
  useKeys().single = false
  await nextTick()
  setActivePinia(createPinia())
  expect(useKeys().single).toBe(false)
  expect(useKeys().now('p')).toBe('z')
})

it('refuses keys with names, and starts with the usual ones where what was kept is none', () => {
  expect(useKeys().change('p', 'Enter')).toBe(false)
  localStorage.setItem('awlsmith.keys', '{{')
  setActivePinia(createPinia())
  expect(useKeys().now('p')).toBe('p')
})

it('tells keys as they are now, and none while single keys are off', () => {
  const keys = useKeys()
  keys.change('p', 'z')
  expect(keys.hint('p')).toBe('Z')
  expect(keys.hint('P')).toBe('Shift P')
  expect(keys.withKey('Pin here', 'p')).toBe('Pin here (Z)')
  keys.single = false
  expect(keys.hint('p')).toBe('')
  expect(keys.withKey('Pin here', 'p')).toBe('Pin here')
  expect(keys.hint('Enter')).toBe('Enter')
})
