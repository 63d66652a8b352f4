import type { Rect, Size } from './glass'

/** A frame that is usual in the trade; heights and widths as the enlarge step's targets have them. */
export interface Standard extends Size {
  readonly id: string
  readonly label: string
}

export const STANDARDS: readonly Standard[] = [
  { id: '576p', label: '576', width: 1024, height: 576 },
  { id: '720p', label: '720', width: 1280, height: 720 },
  { id: '1080p', label: '1080', width: 1920, height: 1080 },
  { id: '1440p', label: '1440', width: 2560, height: 1440 },
  { id: '2160p', label: '2160', width: 3840, height: 2160 },
  { id: '4320p', label: '4320', width: 7680, height: 4320 },
  { id: 'cinema', label: 'cinema', width: 4096, height: 2160 },
]

/** What is drawn in any case, so that it can be chosen. */
const ALWAYS = 3840 * 2160
/** Pictures from which on the cinema's frame is worth an outline beside ultra-high definition. */
const CINEMA_FROM = 1280 * 720

/** Turned for pictures that stand upright. */
export function standing(frame: Standard, picture: Size): Standard {
  return picture.height > picture.width ? { ...frame, width: frame.height, height: frame.width } : frame
}

/** The frames drawn around a picture, the smallest first: those not much smaller than it, up to one beyond what is chosen. */
export function framesAround(picture: Size, chosen: Size): Standard[] {
  const area = (size: Size) => size.width * size.height
  const all = STANDARDS.filter((one) => one.id !== 'cinema' || area(picture) >= CINEMA_FROM)
    .map((one) => standing(one, picture))
    .sort((a, b) => area(a) - area(b))
  const useful = all.filter((one) => area(one) > 0.8 * area(picture))
  const next = useful.find((one) => area(one) > 1.01 * area(chosen))
  const most = Math.max(ALWAYS, next ? area(next) : Infinity)
  return useful.filter((one) => area(one) <= most)
}

/** Pixels of the drawing to one of a picture, so that all sizes fit in it. */
export function drawingScale(sizes: Size[], room: Size): number {
  const width = Math.max(...sizes.map((one) => one.width))
  const height = Math.max(...sizes.map((one) => one.height))
  return Math.min(room.width / width, room.height / height)
}

export type Fit = 'shape' | 'letterbox' | 'fill'

/** Whether two sizes are of one shape, to the pixel that rounding may take. */
export function sameShape(a: Size, b: Size): boolean {
  const scale = Math.max(b.width / a.width, b.height / a.height)
  return Math.abs(a.width * scale - b.width) <= 2 && Math.abs(a.height * scale - b.height) <= 2
}

/**
 * Where a picture lies in a frame.
 *
 * @param offset per cent of the free way: -100 left or top, 100 right or bottom
 * @return in the frame's pixels; beyond it where it is cut
 */
export function placed(picture: Size, frame: Size, fit: Fit, offset: number): Rect {
  const across = frame.width / picture.width
  const down = frame.height / picture.height
  const scale = fit === 'fill' ? Math.max(across, down) : Math.min(across, down)
  const width = picture.width * scale
  const height = picture.height * scale
  const at = (room: number) => (room * (1 + offset / 100)) / 2
  return { x: at(frame.width - width), y: at(frame.height - height), width, height }
}

/** Per cent of a frame that stays black, or of the picture that is cut. */
export function lost(picture: Size, frame: Size, fit: Fit): number {
  if (fit === 'shape') {
    return 0
  }
  const place = placed(picture, frame, fit, 0)
  const inside = Math.min(place.width, frame.width) * Math.min(place.height, frame.height)
  return fit === 'fill'
    ? 100 * (1 - inside / (place.width * place.height))
    : 100 * (1 - inside / (frame.width * frame.height))
}

/** A dragged factor on a place that can be said: twentieths, and the frames' own where it is near one. */
export function roundFactor(factor: number, picture: Size, frames: Size[]): number {
  const near = frames
    .map((one) => Math.min(one.width / picture.width, one.height / picture.height))
    .find((one) => Math.abs(one / factor - 1) < 0.03)
  return near === undefined ? Math.round(factor * 20) / 20 : Math.round(near * 1000) / 1000
}
