import { describe, expect, it } from 'vitest'
import { coresOf, firstOf } from './cores'

describe('lists of cores', () => {
  it('are read as Linux writes them', () => {
    expect(coresOf('0-2,7,12-14')).toEqual([0, 1, 2, 7, 12, 13, 14])
    expect(() => coresOf('0-')).toThrow(RangeError)
  })

  it('are shortened to the first so many', () => {
    expect(firstOf('0-7', 4)).toBe('0-3')
    expect(firstOf('0,2,4,5', 3)).toBe('0,2,4')
    expect(firstOf('3', 4)).toBe('3')
  })
})
