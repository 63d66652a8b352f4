import { describe, expect, it } from 'vitest'
import { moved, shared } from './joining'

describe('clips that are joined', () => {
  it('change places', () => {
    expect(moved(['a', 'b', 'c'], 2, 1)).toEqual(['a', 'c', 'b'])
    expect(moved(['a', 'b'], 0, 1)).toEqual(['b', 'a'])
    expect(moved([], 0, 1)).toEqual([])
  })

  it('are called by what their titles share', () => {
    expect(shared(['Quay 001.mp4', 'Quay 002.mp4'])).toBe('Quay joined')
    expect(shared(['reel-01.mov', 'reel-02.mov'])).toBe('reel joined')
    expect(shared(['Deck walk', 'Regatta'])).toBe('Deck walk joined')
    expect(shared(['12.mp4', '13.mp4'])).toBe('12 joined')
  })
})
