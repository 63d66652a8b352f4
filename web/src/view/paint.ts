import { type Glass, type Point, type Rect, type Size, toScreen } from './glass'

/** A piece of a picture and the place of the source picture it covers, in source pixels. */
export interface Piece {
  readonly bitmap: ImageBitmap | HTMLVideoElement
  readonly covers: Rect
  /** The part of the bitmap that is the piece; all of an image, one half of a proof's frame. */
  readonly part?: Rect
}

export type Look = 'wipe' | 'pair' | 'difference' | 'source' | 'treated'

/** Where the wipe's edge stands: it goes through a point and is turned around it. */
export interface Edge {
  /** 0..1 across the screen, at its middle height. */
  readonly at: number
  /** Turned clockwise from upright, in degrees, -90..90. */
  readonly turn: number
}

/** Everything one drawing needs; the painter reads nothing else. */
export interface Scene {
  readonly glass: Glass
  readonly screen: Size
  readonly picture: Size
  /** Where the treated picture lies in the source's pixels. */
  readonly frame: Rect
  readonly source: Piece | undefined
  readonly treated: Piece | undefined
  /** The middle of the treated picture, newer than the rest while that is still being made. */
  readonly focus?: Piece | undefined
  readonly look: Look
  readonly edge: Edge
  /** How many times larger differences are shown; a power of two. */
  readonly amplify: number
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
  switch (scene.look) {
    case 'wipe':
      return wipe(ctx, scene)
    case 'pair':
      return pair(ctx, scene)
    case 'difference':
      return difference(ctx, scene)
    case 'source':
      side(ctx, scene, scene.source, whole(screen))
      return cutOff(ctx, scene, whole(screen))
    case 'treated':
      return treatedSide(ctx, scene, whole(screen))
  }
}

/** The treated picture, the source where there is none yet, and over it what of it is newer. */
function treatedSide(ctx: CanvasRenderingContext2D, scene: Scene, within: Outline) {
  side(ctx, scene, scene.treated ?? scene.source, within)
  side(ctx, scene, scene.focus, within)
}

/** A closed outline on the screen. */
type Outline = readonly Point[]

const whole = (screen: Size): Outline => box(0, 0, screen.width, screen.height)

function box(x: number, y: number, width: number, height: number): Outline {
  return [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ]
}

/** Where the edge meets the top and the bottom of the screen, going on outside of it. */
export function edgeEnds(screen: Size, edge: Edge): { top: Point; bottom: Point } {
  const x = edge.at * screen.width
  const middle = screen.height / 2
  const turn = (edge.turn * Math.PI) / 180
  // far enough beyond both ends for any turn
  const far = screen.width + screen.height
  const along = { x: Math.sin(turn), y: -Math.cos(turn) }
  return {
    top: { x: x + along.x * far, y: middle + along.y * far },
    bottom: { x: x - along.x * far, y: middle - along.y * far },
  }
}

/** How far a point of the screen lies from the edge, more than 0 on the treated side. */
export function fromEdge(screen: Size, edge: Edge, at: Point): number {
  const turn = (edge.turn * Math.PI) / 180
  return (at.x - edge.at * screen.width) * Math.cos(turn) + (at.y - screen.height / 2) * Math.sin(turn)
}

function wipe(ctx: CanvasRenderingContext2D, scene: Scene) {
  const { screen, edge } = scene
  const line = Math.max(1, Math.round(devicePixelRatio))
  if (edge.turn === 0) {
    // on whole pixels, so that both sides meet without a mixed column
    const cut = Math.round(edge.at * screen.width)
    const left = box(0, 0, cut, screen.height)
    side(ctx, scene, scene.source, left)
    cutOff(ctx, scene, left)
    treatedSide(ctx, scene, box(cut, 0, screen.width - cut, screen.height))
    ctx.fillStyle = EDGE
    ctx.fillRect(cut, 0, line, screen.height)
    return
  }
  const { top, bottom } = edgeEnds(screen, edge)
  const far = screen.width + screen.height
  const turn = (edge.turn * Math.PI) / 180
  const out = { x: Math.cos(turn) * far * 2, y: Math.sin(turn) * far * 2 }
  const half = (sign: number): Outline => [
    top,
    bottom,
    { x: bottom.x + sign * out.x, y: bottom.y + sign * out.y },
    { x: top.x + sign * out.x, y: top.y + sign * out.y },
  ]
  side(ctx, scene, scene.source, half(-1))
  cutOff(ctx, scene, half(-1))
  treatedSide(ctx, scene, half(1))
  ctx.strokeStyle = EDGE
  ctx.lineWidth = line
  ctx.beginPath()
  ctx.moveTo(top.x, top.y)
  ctx.lineTo(bottom.x, bottom.y)
  ctx.stroke()
}

/** The screen of one side when both are shown beside each other. */
export function halfScreen(screen: Size): Size {
  return { width: Math.floor(screen.width / 2), height: screen.height }
}

function pair(ctx: CanvasRenderingContext2D, scene: Scene) {
  const half = halfScreen(scene.screen)
  const right = scene.screen.width - half.width
  const one = { ...scene, screen: half }
  side(ctx, one, scene.source, whole(half))
  cutOff(ctx, one, whole(half))
  ctx.save()
  ctx.translate(right, 0)
  treatedSide(ctx, one, whole(half))
  ctx.restore()
  ctx.fillStyle = EDGE
  ctx.fillRect(half.width, 0, Math.max(1, right - half.width), scene.screen.height)
}

/** The absolute difference of both sides, made lighter by doubling it until it is as many times larger as wanted. */
function difference(ctx: CanvasRenderingContext2D, scene: Scene) {
  const { screen } = scene
  ctx.fillStyle = '#000000'
  ctx.fillRect(0, 0, screen.width, screen.height)
  if (!scene.source || !scene.treated) {
    return
  }
  side(ctx, scene, scene.source, whole(screen))
  ctx.globalCompositeOperation = 'difference'
  side(ctx, scene, scene.treated, whole(screen))
  ctx.globalCompositeOperation = 'lighter'
  for (let by = 2; by <= scene.amplify; by *= 2) {
    ctx.drawImage(ctx.canvas, 0, 0)
  }
  ctx.globalCompositeOperation = 'source-over'
}

/** Dims what of the source the treated frame leaves out, and draws the frame. */
function cutOff(ctx: CanvasRenderingContext2D, scene: Scene, within: Outline) {
  const { frame, picture } = scene
  const same =
    Math.abs(frame.x) + Math.abs(frame.y) < 1 &&
    Math.abs(frame.width - picture.width) + Math.abs(frame.height - picture.height) < 2
  if (same) {
    return
  }
  const inner = toScreen(scene.glass, scene.screen, frame)
  const outer = toScreen(scene.glass, scene.screen, { x: 0, y: 0, ...picture })
  ctx.save()
  clipTo(ctx, within)
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

function clipTo(ctx: CanvasRenderingContext2D, outline: Outline) {
  ctx.beginPath()
  outline.forEach((point, i) => (i === 0 ? ctx.moveTo(point.x, point.y) : ctx.lineTo(point.x, point.y)))
  ctx.closePath()
  ctx.clip()
}

function side(ctx: CanvasRenderingContext2D, scene: Scene, piece: Piece | undefined, within: Outline) {
  if (!piece) {
    return
  }
  ctx.save()
  clipTo(ctx, within)
  drawPiece(ctx, piece, toScreen(scene.glass, scene.screen, piece.covers))
  ctx.restore()
}

/** Draws a piece over a place of the screen. */
export function drawPiece(ctx: CanvasRenderingContext2D, piece: Piece, place: Rect) {
  const part = piece.part ?? { x: 0, y: 0, width: piece.bitmap.width, height: piece.bitmap.height }
  // above 1:1 pixels stay pixels; below, the browser only finishes the last step of a reduction made by the server
  ctx.imageSmoothingEnabled = place.width < part.width
  ctx.imageSmoothingQuality = 'high'
  const { x, y, width, height } = place
  ctx.drawImage(piece.bitmap, part.x, part.y, part.width, part.height, x, y, width, height)
}
