import { paint, type Scene } from './paint'
import { captioned, type Captions } from './sheetPicture'
import { ratio } from './words'

const WIDTH = 960
const HEIGHT = 300
const MAGNIFIED = [1, 2, 4]

/**
 * One spot as people show it to customers: both sides beside each other at three magnifications, each under its captions.
 *
 * @param scene what the glass shows
 * @param scale its treated pixels to one of the screen's, at least 1: only then every pixel is at hand
 */
export function drawCrops(scene: Scene, scale: number, captions: Captions): HTMLCanvasElement {
  const strips = MAGNIFIED.map((times) => {
    const canvas = document.createElement('canvas')
    canvas.width = WIDTH
    canvas.height = HEIGHT
    const ctx = canvas.getContext('2d', { alpha: false })
    if (ctx) {
      const glass = { ...scene.glass, scale: scene.glass.scale * times }
      paint(ctx, { ...scene, glass, screen: { width: WIDTH, height: HEIGHT }, look: 'pair' })
    }
    return captioned(canvas, { ...captions, middle: `${captions.middle} · ${ratio(scale * times)}` })
  })
  const all = document.createElement('canvas')
  all.width = WIDTH
  all.height = strips.reduce((sum, strip) => sum + strip.height, 0)
  const ctx = all.getContext('2d', { alpha: false })
  let y = 0
  for (const strip of strips) {
    ctx?.drawImage(strip, 0, y)
    y += strip.height
  }
  return all
}
