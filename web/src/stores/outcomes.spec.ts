import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { RenderView } from '@/api/client'
import { useOutcomes } from './outcomes'

const said: string[] = []
class FakeNotification {
  static permission = 'granted'
  static answer = 'granted'
  static requestPermission = async () => FakeNotification.answer
  constructor(title: string, options: { body: string }) {
    said.push(`${title}: ${options.body}`)
  }
}
const render = (state: string, problem?: string) =>
  ({ id: 'r', state, problem, fileName: 'Pier.mp4', clipTitle: 'Pier', takeName: 'A' }) as RenderView

beforeEach(() => {
  said.length = 0
  localStorage.clear()
  vi.stubGlobal('Notification', FakeNotification)
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.unstubAllGlobals()
  FakeNotification.answer = 'granted'
})

it('tells how a render that ran has ended, once it is wanted', async () => {
  const outcomes = useOutcomes()
  outcomes.heard(render('RUNNING'), render('DONE'))
  expect(said).toEqual([])
  expect(await outcomes.want(true)).toBe(true)
  outcomes.heard(undefined, render('DONE'))
  outcomes.heard(render('DONE'), render('DONE'))
  outcomes.heard(render('RUNNING'), render('PAUSED'))
  expect(said).toEqual([])
  outcomes.heard(render('RUNNING'), render('DONE'))
  outcomes.heard(render('RUNNING'), render('FAILED', 'the disk is full'))
  expect(said).toEqual(['Pier.mp4 is sent out: Pier, take A', 'Pier.mp4 failed: the disk is full'])
  setActivePinia(createPinia())
  expect(useOutcomes().isWanted).toBe(true)
})

it('says when the browser does not let it', async () => {
  FakeNotification.answer = 'denied'
  const outcomes = useOutcomes()
  expect(await outcomes.want(true)).toBe(false)
  outcomes.heard(render('RUNNING'), render('DONE'))
  expect(said).toEqual([])
})
