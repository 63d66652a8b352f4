import { describe, expect, it } from 'vitest'
import { edgeEnds, fromEdge, paint, type Piece, type Scene } from './paint'

/** Keeps what was asked of it, with the clip that was in force. */
class Recorder {
  readonly calls: string[] = []
  fillStyle = ''
  strokeStyle = ''
  imageSmoothingEnabled = true
  imageSmoothingQuality = ''
  private clip_ = ''
  private path = ''
  save() {}
  restore() {
    this.clip_ = ''
  }
  beginPath() {
    this.path = ''
  }
  rect(x: number, y: number, width: number, height: number) {
    this.path += `[${x} ${y} ${width} ${height}]`
  }
  moveTo(x: number, y: number) {
    this.path += `${x} ${y}`
  }
  lineTo(x: number, y: number) {
    this.path += ` ${x} ${y}`
  }
  closePath() {}
  stroke() {
    this.calls.push(`stroke ${this.path}`)
  }
  translate(x: number, y: number) {
    this.calls.push(`translate ${x} ${y}`)
  }
  readonly canvas = { name: 'itself' }
  globalCompositeOperation = 'source-over'
  clip() {
    this.clip_ = this.path
  }
  fill(rule: string) {
    this.calls.push(`fill ${rule} ${this.path} in ${this.clip_}`)
  }
  fillRect(x: number, y: number, width: number, height: number) {
    this.calls.push(`fillRect ${this.fillStyle} ${x} ${y} ${width} ${height}`)
  }
  strokeRect(x: number, y: number, width: number, height: number) {
    this.calls.push(`strokeRect ${x} ${y} ${width} ${height}`)
  }
  drawImage(bitmap: { name: string }, ...numbers: number[]) {
    const place = numbers.slice(-4).join(' ')
    const how = this.imageSmoothingEnabled ? 'smooth' : 'crisp'
    this.calls.push(
      numbers.length === 2
        ? `double by ${this.globalCompositeOperation}`
        : `draw ${bitmap.name} ${place} ${how} in ${this.clip_} by ${this.globalCompositeOperation}`,
    )
  }
}

const picture = { width: 100, height: 80 }
const piece = (name: string, width: number): Piece => ({
  bitmap: { name, width, height: 80 } as unknown as ImageBitmap,
  covers: { x: 0, y: 0, ...picture },
})
const scene: Scene = {
  glass: { x: 50, y: 40, scale: 2 },
  screen: { width: 300, height: 200 },
  picture,
  frame: { x: 0, y: 0, ...picture },
  source: piece('source', 100),
  treated: piece('treated', 400),
  look: 'wipe',
  edge: { at: 0.5, turn: 0 },
  amplify: 4,
}

function painted(change: Partial<Scene>) {
  const recorder = new Recorder()
  paint(recorder as unknown as CanvasRenderingContext2D, { ...scene, ...change })
  return recorder.calls
}

describe('the painter', () => {
  it('shows the source left of the edge and the treated picture right of it, on one spot', () => {
    const calls = painted({})
    expect(calls[0]).toBe('fillRect #161616 0 0 300 200')
    expect(calls[1]).toContain('draw source 50 20 200 160 crisp in 0 0 150 0 150 200 0 200')
    expect(calls[2]).toContain('draw treated 50 20 200 160 smooth in 150 0 300 0 300 200 150 200')
    expect(calls[3]).toContain('150 0 1 200')
  })

  it('never smooths pixels that are shown larger than they are', () => {
    expect(painted({ look: 'treated' })[1]).toContain('smooth')
    expect(painted({ look: 'treated', glass: { x: 50, y: 40, scale: 4 } })[1]).toContain('crisp')
  })

  it('draws what of the treated picture is newer over the rest of it', () => {
    const focus = { ...piece('middle', 200), covers: { x: 25, y: 20, width: 50, height: 40 } }
    const calls = painted({ look: 'treated', focus })
    expect(calls[1]).toContain('draw treated')
    expect(calls[2]).toContain('draw middle 100 60 100 80')
    expect(painted({ look: 'source', focus }).join()).not.toContain('middle')
  })

  it('shows one side alone without an edge', () => {
    expect(painted({ look: 'source' })).toHaveLength(2)
    expect(painted({ look: 'source' })[1]).toContain('in 0 0 300 0 300 200 0 200')
  })

  it('shows the source where the treated picture is not there yet', () => {
    expect(painted({ look: 'treated', treated: undefined })[1]).toContain('draw source')
    expect(painted({ look: 'treated', treated: undefined, source: undefined })).toHaveLength(1)
  })

  it('dims on the source side what a fill cuts off, and draws the frame', () => {
    const calls = painted({ look: 'source', frame: { x: 0, y: 10, width: 100, height: 60 } })
    expect(calls[2]).toBe('fill evenodd [50 20 200 160][50 40 200 120] in 0 0 300 0 300 200 0 200')
    expect(calls[3]).toBe('strokeRect 50.5 40.5 199 119')
    expect(painted({ look: 'treated', frame: { x: 0, y: 10, width: 100, height: 60 } }).join()).not.toContain(
      'evenodd',
    )
  })

  it('turns the edge around its middle, the source staying on its left', () => {
    const calls = painted({ edge: { at: 0.5, turn: 45 } })
    expect(calls[1]).toContain('draw source')
    expect(calls[2]).toContain('draw treated')
    expect(calls[3]).toMatch(/^stroke/)
    const screen = scene.screen
    expect(fromEdge(screen, { at: 0.5, turn: 45 }, { x: 150, y: 100 })).toBe(0)
    expect(fromEdge(screen, { at: 0.5, turn: 45 }, { x: 150, y: 0 })).toBeLessThan(0)
    expect(fromEdge(screen, { at: 0.5, turn: 45 }, { x: 150, y: 200 })).toBeGreaterThan(0)
    expect(fromEdge(screen, { at: 0.5, turn: 0 }, { x: 170, y: 20 })).toBeCloseTo(20)
    const { top } = edgeEnds(screen, { at: 0.5, turn: 45 })
    expect(top.x).toBeGreaterThan(150)
  })

  it('shows a pair as the same spot in the middle of each half', () => {
    const calls = painted({ look: 'pair' })
    expect(calls[1]).toContain('draw source -25 20 200 160')
    expect(calls[2]).toBe('translate 150 0')
    expect(calls[3]).toContain('draw treated -25 20 200 160')
  })

  it('doubles the difference until it is as large as wanted', () => {
    const calls = painted({ look: 'difference', amplify: 8 })
    expect(calls.filter((call) => call === 'double by lighter')).toHaveLength(3)
    expect(calls.find((call) => call.startsWith('draw treated'))).toContain('by difference')
    expect(painted({ look: 'difference', amplify: 1 }).join()).not.toContain('double')
    expect(painted({ look: 'difference', treated: undefined }).join()).not.toContain('draw')
  })
})
