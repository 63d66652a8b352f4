import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { Problem } from '@/api/client'
import { useNotices } from './notices'

beforeEach(() => setActivePinia(createPinia()))

it('keeps a fault until it was closed, and tells the notice that came meanwhile then', () => {
  const notices = useNotices()
  notices.fail(new Problem(400, 'it does not open'))
  notices.say('something else is done')
  expect(notices.text).toBe('it does not open')
  expect(notices.fault).toBe(true)
  notices.close()
  expect(notices.text).toBe('something else is done')
  notices.close()
  expect(notices.shown).toBe(false)
})

it('puts the newest of plain notices in the place of the last one', () => {
  const notices = useNotices()
  const back = vi.fn()
  notices.say('one', back)
  notices.say('two')
  expect(notices.text).toBe('two')
  expect(notices.undo).toBeUndefined()
})

it('tells the same fault once', () => {
  const notices = useNotices()
  notices.fail(new Problem(400, 'no'))
  notices.fail(new Problem(400, 'no'))
  notices.close()
  expect(notices.shown).toBe(false)
})

it('says nothing of what somebody stopped', () => {
  useNotices().fail(new DOMException('stopped', 'AbortError'))
  expect(useNotices().shown).toBe(false)
})
