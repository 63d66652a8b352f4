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
  /** Where the treated picture lies in the source's pixels. */
  readonly frame: Rect
  readonly source: Piece | undefined
  readonly treated: Piece | undefined
  readonly look: Look
  /** Where the edge stands, 0..1 across the screen. */
  readonly edge: number
}

const GROUND = '#161616'
/** Over what of the source is cut off, and around the treated frame where it is not the source's. */
const CUT_OFF = 'rgba(22, 22, 22, 0.62)'
const FRAME = 'rgba(242, 179, 102, 0.8)'
const EDGE = 'rgba(255, 255, 255, 0.9)'

export function paint(ctx: CanvasRenderingContext2D, scene: Scene) {
  const { screen } = scene
  ctx.fillStyle = GROUND
  ctx.fillRect(0, 0, screen.width, screen.height)
  const cut = Math.round(scene.edge * screen.width)
  if (scene.look !== 'treated') {
    side(ctx, scene, scene.source, 0, scene.look === 'wipe' ? cut : screen.width)
    cutOff(ctx, scene, scene.look === 'wipe' ? cut : screen.width)
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

/** Dims what of the source the treated frame leaves out, and draws the frame. */
function cutOff(ctx: CanvasRenderingContext2D, scene: Scene, width: number) {
  const { frame, picture } = scene
  const same =
    Math.abs(frame.x) + Math.abs(frame.y) < 1 &&
    Math.abs(frame.width - picture.width) + Math.abs(frame.height - picture.height) < 2
  if (same || width <= 0) {
    return
  }
  const inner = toScreen(scene.glass, scene.screen, frame)
  const outer = toScreen(scene.glass, scene.screen, { x: 0, y: 0, ...picture })
  ctx.save()
  ctx.beginPath()
  ctx.rect(0, 0, width, scene.screen.height)
  ctx.clip()
  ctx.fillStyle = CUT_OFF
  ctx.beginPath()
  ctx.rect(outer.x, outer.y, outer.width, outer.height)
  ctx.rect(inner.x, inner.y, inner.width, inner.height)
  // even-odd: what lies in the picture and not in the frame, and black bars beside it as well, which hold nothing
  ctx.fill('evenodd')
  ctx.strokeStyle = FRAME
  ctx.strokeRect(Math.round(inner.x) + 0.5, Math.round(inner.y) + 0.5, inner.width - 1, inner.height - 1)
  ctx.restore()
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
