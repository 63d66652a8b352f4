/** Lines are drawn so high, and made smaller where they are shown. */
const HEIGHT = 96
const PADDING = 24

/** A line of words as a picture: white, with a dark rim, so that it can be read on anything; clear around it. */
export async function drawnLine(words: string): Promise<File> {
  const font = `600 ${HEIGHT}px 'Barlow', sans-serif`
  await document.fonts?.load(font, words)
  const canvas = document.createElement('canvas')
  const draw = canvas.getContext('2d')!
  draw.font = font
  canvas.width = Math.min(4096, Math.ceil(draw.measureText(words).width) + 2 * PADDING)
  canvas.height = HEIGHT + 2 * PADDING
  // sizing a canvas forgets what was set
  draw.font = font
  draw.textBaseline = 'middle'
  draw.lineJoin = 'round'
  draw.lineWidth = 10
  draw.strokeStyle = 'rgba(0, 0, 0, 0.6)'
  draw.fillStyle = '#fff'
  const middle = canvas.height / 2
  draw.strokeText(words, PADDING, middle, canvas.width - 2 * PADDING)
  draw.fillText(words, PADDING, middle, canvas.width - 2 * PADDING)
  const blob = await new Promise<Blob>((done, failed) =>
    canvas.toBlob(
      (made) => (made ? done(made) : failed(new Error('the line could not be drawn'))),
      'image/png',
    ),
  )
  return new File([blob], `${words}.png`, { type: 'image/png' })
}
