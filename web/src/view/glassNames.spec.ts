import { describe, expect, it } from 'vitest'
import { isOtherTake, leftName, rightName } from './glassNames'

const rest = { moving: undefined, takeName: 'B', against: undefined, named: undefined, own: false }

describe('names of the sides of the glass', () => {
  it('tells whether the source is seen with its own pixels', () => {
    expect(leftName(rest)).toBe('source, enlarged plainly')
    expect(leftName({ ...rest, own: true })).toBe('source, own pixels')
    expect(rightName(rest)).toBe('take B')
  })

  it('tells another take from the reference', () => {
    const other = { ...rest, against: { name: 'A', reference: false } }
    expect(leftName(other)).toBe('take A')
    expect(isOtherTake(other)).toBe(true)
    const reference = { ...rest, against: { name: 'clean', reference: true } }
    expect(leftName(reference)).toBe('reference')
    expect(isOtherTake(reference)).toBe(false)
  })

  it('goes by the proof while one is played, whatever stands there at rest', () => {
    const playing = {
      ...rest,
      against: { name: 'A', reference: false },
      moving: { takeName: 'C', against: 'D' },
      named: undefined,
    }
    expect(leftName(playing)).toBe('take D')
    expect(rightName(playing)).toBe('take C')
    expect(isOtherTake({ ...playing, moving: { takeName: 'C' } })).toBe(false)
  })

  it('names a step that is seen alone', () => {
    const alone = { ...rest, named: { left: 'before denoise', right: 'after denoise' } }
    expect(leftName(alone)).toBe('before denoise')
    expect(rightName(alone)).toBe('after denoise')
  })
})
