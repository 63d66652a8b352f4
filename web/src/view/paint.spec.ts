import { describe, expect, it } from 'vitest'
import { paint, type Piece, type Scene } from './paint'

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
  drawImage(bitmap: { name: string }, x: number, y: number, width: number, height: number) {
    this.calls.push(
      `draw ${bitmap.name} ${x} ${y} ${width} ${height} ${this.imageSmoothingEnabled ? 'smooth' : 'crisp'} in ${this.clip_}`,
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
  edge: 0.5,
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
    expect(calls[1]).toBe('draw source 50 20 200 160 crisp in [0 0 150 200]')
    expect(calls[2]).toBe('draw treated 50 20 200 160 smooth in [150 0 150 200]')
    expect(calls[3]).toContain('150 0 1 200')
  })

  it('never smooths pixels that are shown larger than they are', () => {
    expect(painted({ look: 'treated' })[1]).toContain('smooth')
    expect(painted({ look: 'treated', glass: { x: 50, y: 40, scale: 4 } })[1]).toContain('crisp')
  })

  it('shows one side alone without an edge', () => {
    expect(painted({ look: 'source' })).toHaveLength(2)
    expect(painted({ look: 'source' })[1]).toContain('in [0 0 300 200]')
  })

  it('shows the source where the treated picture is not there yet', () => {
    expect(painted({ look: 'treated', treated: undefined })[1]).toContain('draw source')
    expect(painted({ look: 'treated', treated: undefined, source: undefined })).toHaveLength(1)
  })

  it('dims on the source side what a fill cuts off, and draws the frame', () => {
    const calls = painted({ look: 'source', frame: { x: 0, y: 10, width: 100, height: 60 } })
    expect(calls[2]).toBe('fill evenodd [50 20 200 160][50 40 200 120] in [0 0 300 200]')
    expect(calls[3]).toBe('strokeRect 50.5 40.5 199 119')
    expect(painted({ look: 'treated', frame: { x: 0, y: 10, width: 100, height: 60 } }).join()).not.toContain(
      'evenodd',
    )
  })
})
