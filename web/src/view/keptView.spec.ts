import { beforeEach, expect, it } from 'vitest'
import { keepView, keptView } from './keptView'

beforeEach(() => sessionStorage.clear())

it('keeps each part beside the others, clip by clip', () => {
  keepView('a', { frame: 3 })
  keepView('a', { look: 'pair' })
  keepView('b', { frame: 9 })
  expect(keptView('a')).toEqual({ frame: 3, look: 'pair' })
  expect(keptView('b')).toEqual({ frame: 9 })
})

it('begins anew where what was kept cannot be read', () => {
  sessionStorage.setItem('awlsmith.view.a', '{"frame":')
  expect(keptView('a')).toEqual({})
  sessionStorage.setItem('awlsmith.view.a', 'null')
  expect(keptView('a')).toEqual({})
})
