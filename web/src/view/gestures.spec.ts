import { afterEach, describe, expect, it, vi } from 'vitest'
import { dragMoves, type ViewVerbs, wheelZooms } from './gestures'

function surface() {
  const element = document.createElement('div')
  element.getBoundingClientRect = () => ({ left: 100, top: 50, width: 400, height: 200 }) as DOMRect
  element.setPointerCapture = () => {}
  return element
}

function verbs(nearEdge?: 'line' | 'end') {
  return {
    zoom: vi.fn<ViewVerbs['zoom']>(),
    pan: vi.fn<ViewVerbs['pan']>(),
    moveEdge: vi.fn<ViewVerbs['moveEdge']>(),
    turnEdge: vi.fn<ViewVerbs['turnEdge']>(),
    box: vi.fn<ViewVerbs['box']>(),
    nearEdge: vi.fn<ViewVerbs['nearEdge']>(() => nearEdge),
  }
}

function pointer(type: string, x: number, y: number, button = 0) {
  return Object.assign(new MouseEvent(type, { clientX: x, clientY: y, button, bubbles: true }), {
    pointerId: 1,
  })
}

const quit = new AbortController()
afterEach(() => vi.unstubAllGlobals())

describe('the wheel', () => {
  it('zooms at the pointer, counted from the middle in device pixels', () => {
    vi.stubGlobal('devicePixelRatio', 2)
    const on = surface()
    const view = verbs()
    wheelZooms(on, view, quit.signal)
    const wheel = Object.assign(new WheelEvent('wheel', { deltaY: -100, cancelable: true }), {
      clientX: 350,
      clientY: 120,
    })
    on.dispatchEvent(wheel)
    expect(wheel.defaultPrevented).toBe(true)
    const [factor, at] = view.zoom.mock.calls[0]!
    expect(factor).toBeCloseTo(1.0022 ** 100, 9)
    expect(at).toEqual({ x: 100, y: -60 })
  })

  it('takes lines for sixteen pixels and no notch for more than it may be', () => {
    const on = surface()
    const view = verbs()
    wheelZooms(on, view, quit.signal)
    on.dispatchEvent(new WheelEvent('wheel', { deltaY: 3, deltaMode: WheelEvent.DOM_DELTA_LINE }))
    expect(view.zoom.mock.calls[0]?.[0]).toBeCloseTo(1.0022 ** -48, 9)
    on.dispatchEvent(new WheelEvent('wheel', { deltaY: 9000 }))
    expect(view.zoom.mock.calls[1]?.[0]).toBeCloseTo(1.0022 ** -240, 9)
  })

  it('is silent once the view is gone', () => {
    const on = surface()
    const view = verbs()
    const gone = new AbortController()
    wheelZooms(on, view, gone.signal)
    gone.abort()
    on.dispatchEvent(new WheelEvent('wheel', { deltaY: 10 }))
    expect(view.zoom).not.toHaveBeenCalled()
  })
})

describe('a drag', () => {
  it('moves the picture by what the pointer moved since the last time', () => {
    vi.stubGlobal('devicePixelRatio', 1)
    const on = surface()
    const view = verbs()
    dragMoves(on, view, quit.signal)
    on.dispatchEvent(pointer('pointerdown', 200, 100))
    on.dispatchEvent(pointer('pointermove', 210, 95))
    on.dispatchEvent(pointer('pointermove', 212, 95))
    on.dispatchEvent(pointer('pointerup', 212, 95))
    on.dispatchEvent(pointer('pointermove', 300, 95))
    expect(view.pan.mock.calls).toEqual([
      [10, -5],
      [2, 0],
    ])
    expect(view.moveEdge).not.toHaveBeenCalled()
  })

  it('that begins at the edge moves the edge, or turns it by its end', () => {
    vi.stubGlobal('devicePixelRatio', 1)
    const on = surface()
    const view = verbs('line')
    dragMoves(on, view, quit.signal)
    on.dispatchEvent(pointer('pointerdown', 300, 100))
    expect(view.nearEdge).toHaveBeenCalledWith({ x: 0, y: -50 })
    on.dispatchEvent(pointer('pointermove', 400, 100))
    expect(view.moveEdge).toHaveBeenCalledWith(100, 0)
    expect(view.pan).not.toHaveBeenCalled()
    view.nearEdge.mockReturnValue('end')
    on.dispatchEvent(pointer('pointerup', 400, 100))
    on.dispatchEvent(pointer('pointerdown', 300, 60))
    on.dispatchEvent(pointer('pointermove', 350, 60))
    expect(view.turnEdge).toHaveBeenCalledWith({ x: 50, y: -90 })
  })

  it('with Shift draws a box, done when it is let go', () => {
    vi.stubGlobal('devicePixelRatio', 1)
    const on = surface()
    const view = verbs('line')
    dragMoves(on, view, quit.signal)
    const shift = (type: string, x: number, y: number) =>
      Object.defineProperty(pointer(type, x, y), 'shiftKey', { value: true })
    on.dispatchEvent(shift('pointerdown', 300, 150))
    on.dispatchEvent(shift('pointermove', 340, 170))
    on.dispatchEvent(shift('pointerup', 340, 170))
    const corners = [
      { x: 0, y: 0 },
      { x: 40, y: 20 },
    ]
    expect(view.box.mock.calls).toEqual([
      [...corners, false],
      [...corners, true],
    ])
    expect(view.pan).not.toHaveBeenCalled()
  })

  it('with another button is not one', () => {
    const on = surface()
    const view = verbs()
    dragMoves(on, view, quit.signal)
    on.dispatchEvent(pointer('pointerdown', 200, 100, 2))
    on.dispatchEvent(pointer('pointermove', 210, 95))
    expect(view.pan).not.toHaveBeenCalled()
  })
})
