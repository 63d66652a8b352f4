import { type Glass, type Rect, type Size, toScreen } from './glass'

/** A fetched piece of a picture and the place of the source picture it covers, in source pixels. */
export interface Piece {
  readonly bitmap: ImageBitmap
  readonly covers: Rect
}

export type Look = 'wipe' | 'source' | 'treated'

/** Everything one drawing needs; the painter reads nothing else. */
export interface Scene {
  readonly glass: Glass
  readonly screen: Size
  readonly picture: Size
  readonly source: Piece | undefined
  readonly treated: Piece | undefined
  readonly look: Look
  /** Where the edge stands, 0..1 across the screen. */
  readonly edge: number
}

const GROUND = '#161616'
const EDGE = 'rgba(255, 255, 255, 0.9)'

export function paint(ctx: CanvasRenderingContext2D, scene: Scene) {
  const { screen } = scene
  ctx.fillStyle = GROUND
  ctx.fillRect(0, 0, screen.width, screen.height)
  const cut = Math.round(scene.edge * screen.width)
  if (scene.look !== 'treated') {
    side(ctx, scene, scene.source, 0, scene.look === 'wipe' ? cut : screen.width)
  }
  if (scene.look !== 'source') {
    const from = scene.look === 'wipe' ? cut : 0
    side(ctx, scene, scene.treated ?? scene.source, from, screen.width - from)
  }
  if (scene.look === 'wipe') {
    ctx.fillStyle = EDGE
    ctx.fillRect(cut, 0, Math.max(1, Math.round(devicePixelRatio)), screen.height)
  }
}

function side(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  piece: Piece | undefined,
  from: number,
  width: number,
) {
  if (!piece || width <= 0) {
    return
  }
  ctx.save()
  ctx.beginPath()
  ctx.rect(from, 0, width, scene.screen.height)
  ctx.clip()
  const place = toScreen(scene.glass, scene.screen, piece.covers)
  // above 1:1 pixels stay pixels; below, the browser only finishes the last step of a reduction made by the server
  ctx.imageSmoothingEnabled = place.width < piece.bitmap.width
  ctx.imageSmoothingQuality = 'high'
  ctx.drawImage(piece.bitmap, place.x, place.y, place.width, place.height)
  ctx.restore()
}
