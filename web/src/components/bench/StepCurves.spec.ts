import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import StepCurves from './StepCurves.vue'

describe('StepCurves', () => {
  it('draws before and after in one scale and tells it', () => {
    const seen = mount(StepCurves, {
      props: {
        curves: [
          { name: 'across', unit: '% of the width', before: [0, 4, 0, 4], after: [2, 2, 2, 2] },
          { name: 'turn', unit: '°', before: [0, 0], after: [0, 0] },
        ],
      },
    })
    const lines = seen.findAll('polyline')
    expect(lines).toHaveLength(4)
    expect(lines[0]!.attributes('points')).toBe('125.0,34.00 375.0,2.00 625.0,34.00 875.0,2.00')
    expect(lines[1]!.attributes('points')).toBe('125.0,18.00 375.0,18.00 625.0,18.00 875.0,18.00')
    expect(seen.text()).toContain('4.0 % of the width')
    // what never moves is a line, not a fault
    expect(lines[2]!.attributes('points')).not.toContain('NaN')
    expect(seen.text()).toContain('0.010°')
  })
})
