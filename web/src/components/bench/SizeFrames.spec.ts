import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import SizeFrames from './SizeFrames.vue'

const picture = { width: 640, height: 360 }
const chosen = { width: 1280, height: 720 }
/** Of the drawing to one of the picture's: ultra-high definition is as wide as there is room for. */
const SCALE = Math.min(234 / 3840, 124 / 2160)
const BOTTOM = 124 + 8

function mounted(change = {}) {
  return mount(SizeFrames, {
    props: { picture, chosen, target: undefined, fit: 'shape', offset: 0, least: 0.125, most: 8, ...change },
    attachTo: document.body,
  })
}

function dragCorner(
  drawing: ReturnType<typeof mounted>,
  to: { width: number; height: number },
  end = 'pointerup',
) {
  const corner = drawing.find('[data-test=corner]').element as SVGElement
  corner.setPointerCapture = vi.fn()
  const at = { clientX: 1 + to.width * SCALE, clientY: BOTTOM - to.height * SCALE }
  corner.dispatchEvent(new PointerEvent('pointerdown', { button: 0 }))
  corner.dispatchEvent(new PointerEvent('pointermove', at))
  corner.dispatchEvent(new PointerEvent(end, at))
}

describe('sizes drawn to scale', () => {
  it('draw the picture, what is made of it, and the usual frames', () => {
    const drawing = mounted()
    const width = (of: string) => Number(drawing.find(of).attributes('width'))
    expect(width('.made') / width('.own')).toBeCloseTo(2)
    expect(width('[data-test=frame-2160p] rect') / width('.made')).toBeCloseTo(3)
    expect(drawing.findAll('.frame')).toHaveLength(5)
  })

  it('take the factor of a dragged corner once it is let go, in twentieths', () => {
    const drawing = mounted()
    dragCorner(drawing, { width: 2.52 * 640, height: 2.52 * 360 })
    expect(drawing.emitted('factor')).toEqual([[2.5]])
  })

  it('hold a dragged corner at a usual frame, and within what is allowed', () => {
    const drawing = mounted()
    dragCorner(drawing, { width: 1900, height: 1070 })
    expect(drawing.emitted('factor')).toEqual([[3]])
    const small = mounted({ most: 4 })
    dragCorner(small, { width: 99_999, height: 99_999 })
    expect(small.emitted('factor')).toEqual([[4]])
  })

  it('change nothing when the drag is broken off', () => {
    const drawing = mounted()
    dragCorner(drawing, { width: 1900, height: 1070 }, 'pointercancel')
    expect(drawing.emitted('factor')).toBeUndefined()
  })

  it('draw the picture within a frame of another shape, and beyond it where it is cut', () => {
    const frame = { width: 1080, height: 1080 }
    const boxed = mounted({ chosen: frame, fit: 'letterbox' })
    const box = (of: string, side: string) => Number(boxed.find(of).attributes(side))
    expect(box('.inside', 'height')).toBeLessThan(box('.made', 'height'))
    const cut = mounted({ chosen: frame, fit: 'fill' })
    expect(Number(cut.find('.inside').attributes('width'))).toBeGreaterThan(
      Number(cut.find('.made').attributes('width')),
    )
    expect(mounted().find('.inside').exists()).toBe(false)
  })
})
