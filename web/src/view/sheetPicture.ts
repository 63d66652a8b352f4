/** One cell of a picture of the sheet, with what stands around it. */
export interface SheetCells {
  readonly title: string
  readonly columns: readonly string[]
  readonly rows: readonly {
    readonly name: string
    readonly lines: readonly string[]
    readonly source: boolean
    readonly cells: readonly (HTMLCanvasElement | undefined)[]
  }[]
}

const SIDE = 230
const GAP = 8
const TOP = 64
const INK = '#e8e6e1'
const QUIET = '#a5a29b'

/** Draws the sheet as people pass it on: the very pixels of its cells with names and figures beside them. */
export function drawSheet(sheet: SheetCells): HTMLCanvasElement {
  const first = sheet.rows.flatMap((row) => row.cells).find((cell) => cell !== undefined)
  const cellWidth = first?.width ?? 240
  const cellHeight = first?.height ?? 150
  const rowHeight = Math.max(cellHeight, 120)
  const canvas = document.createElement('canvas')
  canvas.width = SIDE + sheet.columns.length * (cellWidth + GAP) + GAP
  canvas.height = TOP + sheet.rows.length * (rowHeight + GAP) + GAP
  const ctx = canvas.getContext('2d', { alpha: false })
  if (!ctx) {
    return canvas
  }
  ctx.fillStyle = '#161616'
  ctx.fillRect(0, 0, canvas.width, canvas.height)
  ctx.fillStyle = INK
  ctx.font = '600 18px "Barlow Semi Condensed", sans-serif'
  ctx.fillText(sheet.title, GAP, 26)
  ctx.font = '13px "Barlow Semi Condensed", sans-serif'
  ctx.fillStyle = QUIET
  sheet.columns.forEach((name, i) => ctx.fillText(name, SIDE + i * (cellWidth + GAP), TOP - 10, cellWidth))
  sheet.rows.forEach((row, r) => {
    const y = TOP + r * (rowHeight + GAP)
    ctx.fillStyle = row.source ? '#7fa3b5' : '#d99a2b'
    ctx.fillRect(GAP, y, 3, rowHeight)
    ctx.fillStyle = INK
    ctx.font = '600 15px "Barlow Semi Condensed", sans-serif'
    ctx.fillText(row.name, GAP + 12, y + 16, SIDE - 30)
    ctx.font = '12px "Spline Sans Mono", monospace'
    ctx.fillStyle = QUIET
    row.lines.forEach((line, i) => ctx.fillText(line, GAP + 12, y + 36 + 17 * i, SIDE - 30))
    row.cells.forEach((cell, i) => {
      if (cell) {
        ctx.drawImage(cell, SIDE + i * (cellWidth + GAP), y)
      }
    })
  })
  return canvas
}

const STRIP = 34

/** What stands above a picture that is passed on. */
export interface Captions {
  readonly left: string
  readonly right: string
  readonly middle: string
}

/** A strip with what is seen on the left and on the right; of a pair each half has its own middle. */
export function captionStrip(width: number, captions: Captions): HTMLCanvasElement {
  const canvas = document.createElement('canvas')
  canvas.width = width
  canvas.height = STRIP
  const ctx = canvas.getContext('2d', { alpha: false })
  if (!ctx) {
    return canvas
  }
  ctx.fillStyle = '#161616'
  ctx.fillRect(0, 0, width, STRIP)
  ctx.textBaseline = 'middle'
  ctx.font = '600 15px "Barlow Semi Condensed", sans-serif'
  ctx.fillStyle = '#7fa3b5'
  ctx.fillText(captions.left, 10, STRIP / 2, width * 0.4)
  ctx.fillStyle = '#d99a2b'
  ctx.textAlign = 'right'
  ctx.fillText(captions.right, width - 10, STRIP / 2, width * 0.4)
  ctx.font = '12px "Spline Sans Mono", monospace'
  ctx.fillStyle = QUIET
  ctx.textAlign = 'center'
  ctx.fillText(captions.middle, width / 2, STRIP / 2, width * 0.3)
  return canvas
}

/** A picture under its captions. */
export function captioned(picture: HTMLCanvasElement, captions: Captions): HTMLCanvasElement {
  const canvas = document.createElement('canvas')
  canvas.width = picture.width
  canvas.height = picture.height + STRIP
  const ctx = canvas.getContext('2d', { alpha: false })
  ctx?.drawImage(captionStrip(picture.width, captions), 0, 0)
  ctx?.drawImage(picture, 0, STRIP)
  return canvas
}

/** Hands bytes to the user as a file. */
export function saveFile(bytes: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(bytes)
  link.download = name
  link.click()
  // the download has its own hold on it by then
  setTimeout(() => URL.revokeObjectURL(link.href), 1000)
}

/** Hands a picture to the user as a file. */
export function saveAs(canvas: HTMLCanvasElement, name: string): Promise<void> {
  return new Promise((done) =>
    canvas.toBlob((blob) => {
      if (blob) {
        saveFile(blob, name)
      }
      done()
    }),
  )
}
