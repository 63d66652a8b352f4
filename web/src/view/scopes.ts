import type { ScopesView } from '@/api/client'

/** Code values of 8-bit video: ITU-R BT.601-7 section 2.5.3 and BT.709-6 item 4.6. */
export const BLACK = 16
export const WHITE = 235
const CODES = 256
const GREY = 128
const CHROMA_SPAN = 224

const SOURCE = '#7fa3b5'
const TREATED = '#d99a2b'
const MARK = 'rgba(232, 230, 225, 0.35)'

interface Both {
  readonly source: ScopesView
  readonly treated: ScopesView
}

/** Heights 0..1 of 256 columns; the root makes small counts visible beside large ones. */
export function columns(histogram: readonly number[]): number[] {
  const most = Math.max(1, ...histogram)
  return histogram.map((count) => Math.sqrt(count / most))
}

function cleared(canvas: HTMLCanvasElement): CanvasRenderingContext2D | undefined {
  const ctx = canvas.getContext('2d') ?? undefined
  ctx?.clearRect(0, 0, canvas.width, canvas.height)
  return ctx
}

export function drawHistogram(canvas: HTMLCanvasElement, { source, treated }: Both) {
  const ctx = cleared(canvas)
  if (!ctx) {
    return
  }
  const { width, height } = canvas
  const x = (code: number) => (code * width) / CODES
  ctx.fillStyle = MARK
  for (const code of [BLACK, WHITE]) {
    ctx.fillRect(Math.round(x(code + (code === WHITE ? 1 : 0))), 0, 1, height)
  }
  for (const [scope, colour] of [
    [source, SOURCE],
    [treated, TREATED],
  ] as const) {
    ctx.strokeStyle = colour
    ctx.lineWidth = 1.5
    ctx.beginPath()
    columns(scope.histogram).forEach((share, code) => {
      const y = height - 1 - share * (height - 3)
      if (code === 0) {
        ctx.moveTo(x(code), y)
      } else {
        ctx.lineTo(x(code), y)
      }
    })
    ctx.stroke()
  }
}

/** Puts counts into a picture of one colour, the more the lighter. */
function dots(
  ctx: CanvasRenderingContext2D,
  width: number,
  height: number,
  colour: readonly [number, number, number],
  put: (at: (x: number, y: number, light: number) => void) => void,
) {
  const image = ctx.getImageData(0, 0, width, height)
  put((x, y, light) => {
    const at = 4 * (Math.round(y) * width + Math.round(x))
    for (let c = 0; c < 3; c++) {
      image.data[at + c] = Math.min(255, (image.data[at + c] ?? 0) + (colour[c] ?? 0) * light)
    }
    image.data[at + 3] = 255
  })
  ctx.putImageData(image, 0, 0)
}

const SOURCE_RGB = [127, 163, 181] as const
const TREATED_RGB = [217, 154, 43] as const

export function drawWaveform(canvas: HTMLCanvasElement, scope: ScopesView, isSource: boolean) {
  const ctx = cleared(canvas)
  if (!ctx) {
    return
  }
  const { width, height } = canvas
  const perColumn = scope.samples / scope.columns
  const y = (code: number) => ((CODES - 1 - code) * (height - 1)) / (CODES - 1)
  dots(ctx, width, height, isSource ? SOURCE_RGB : TREATED_RGB, (at) => {
    for (let column = 0; column < scope.columns; column++) {
      const from = Math.floor((column * width) / scope.columns)
      const to = Math.max(from + 1, Math.floor(((column + 1) * width) / scope.columns))
      for (let code = 0; code < CODES; code++) {
        const count = scope.waveform[column * CODES + code] ?? 0
        if (count > 0) {
          for (let x = from; x < Math.min(to, width); x++) {
            at(x, y(code), Math.min(1, 0.25 + (6 * count) / perColumn))
          }
        }
      }
    }
  })
  ctx.fillStyle = MARK
  ctx.fillRect(0, Math.round(y(BLACK)), width, 1)
  ctx.fillRect(0, Math.round(y(WHITE)), width, 1)
}

/** Where the bars of 75 % lie: Cb and Cr as code values, by the luma weights of the matrix (BT.601-7, BT.709-6). */
export function targets(matrix: string): { name: string; cb: number; cr: number }[] {
  const [kr, kb] =
    matrix === 'bt709' ? [0.2126, 0.0722] : matrix === 'bt2020nc' ? [0.2627, 0.0593] : [0.299, 0.114]
  const bars = { R: [1, 0, 0], Y: [1, 1, 0], G: [0, 1, 0], C: [0, 1, 1], B: [0, 0, 1], M: [1, 0, 1] }
  return Object.entries(bars).map(([name, [r = 0, g = 0, b = 0]]) => {
    const luma = kr * r + (1 - kr - kb) * g + kb * b
    return {
      name,
      cb: GREY + (0.75 * CHROMA_SPAN * (b - luma)) / (2 - 2 * kb),
      cr: GREY + (0.75 * CHROMA_SPAN * (r - luma)) / (2 - 2 * kr),
    }
  })
}

export function drawVectors(canvas: HTMLCanvasElement, { source, treated }: Both) {
  const ctx = cleared(canvas)
  if (!ctx) {
    return
  }
  const { width, height } = canvas
  const x = (cb: number) => (cb * (width - 1)) / (CODES - 1)
  const y = (cr: number) => ((CODES - 1 - cr) * (height - 1)) / (CODES - 1)
  for (const [scope, colour] of [
    [source, SOURCE_RGB],
    [treated, TREATED_RGB],
  ] as const) {
    const all = scope.vectors.reduce((sum, n, i) => sum + (i % 2 === 1 ? n : 0), 0)
    dots(ctx, width, height, colour, (at) => {
      for (let i = 0; i < scope.vectors.length; i += 2) {
        const place = scope.vectors[i] ?? 0
        const light = Math.min(1, 0.25 + (300 * (scope.vectors[i + 1] ?? 0)) / Math.max(1, all))
        at(x(place % CODES), y(Math.floor(place / CODES)), light)
      }
    })
  }
  ctx.strokeStyle = MARK
  ctx.fillStyle = MARK
  ctx.font = '16px sans-serif'
  ctx.strokeRect(x(GREY) - 6, y(GREY) - 0.5, 12, 1)
  ctx.strokeRect(x(GREY) - 0.5, y(GREY) - 6, 1, 12)
  for (const target of targets(source.matrix)) {
    ctx.strokeRect(x(target.cb) - 7, y(target.cr) - 7, 14, 14)
    ctx.fillText(target.name, x(target.cb) + 10, y(target.cr) + 5)
  }
}
