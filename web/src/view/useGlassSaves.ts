import { onScopeDispose, ref } from 'vue'
import { cropsSpot, drawCrops } from './cropsPicture'
import { inSource, type Rect } from './glass'
import type { Look } from './paint'
import { captioned, saveAs } from './sheetPicture'
import type { Sides } from './sides'
import { ratio } from './words'

/** What pictures are saved of, asked when they are. */
interface Seen {
  readonly clip: string
  readonly title: () => string
  readonly canvas: () => HTMLCanvasElement | undefined
  readonly shown: () => Look
  readonly names: () => { left: string; right: string }
  readonly place: () => string
  readonly scale: () => number
  readonly moment: () => { frame: number; later: number; marked: boolean }
  readonly sides: () => Sides
  readonly against: () => { sides: Sides; name: string; reference: boolean } | undefined
  /** The box that is kept, a pin, and what is seen: crops show the first there is. */
  readonly crop: () => Rect | undefined
  readonly pin: () => Rect | undefined
  readonly seenPart: () => Rect
  readonly failed: (error: unknown) => void
}

/** Saves what the glass shows: the view as it is seen, or one spot at whole multiples of its size. */
export function useGlassSaves(of: Seen) {
  const isCropping = ref(false)
  const quit = new AbortController()
  onScopeDispose(() => quit.abort())

  /** The view as it is seen, with what stands on which side above it. */
  function saveView() {
    const canvas = of.canvas()
    if (canvas) {
      const shown = of.shown()
      const both = of.names()
      const seen = {
        left: shown === 'treated' ? '' : both.left,
        right: shown === 'source' ? '' : both.right,
        middle: `${of.place()} · ${ratio(of.scale())}`,
      }
      void saveAs(captioned(canvas, seen), `${of.title()} ${shown}.png`)
    }
  }

  async function saveCrops() {
    const sides = of.sides()
    const size = sides.source
    const frame = inSource(size, sides.treated, sides.placement)
    const shownPart = {
      x: Math.max(0, frame.x),
      y: Math.max(0, frame.y),
      width: Math.min(size.width, frame.x + frame.width) - Math.max(0, frame.x),
      height: Math.min(size.height, frame.y + frame.height) - Math.max(0, frame.y),
    }
    isCropping.value = true
    try {
      const picture = await drawCrops(
        {
          spot: { clip: of.clip, ...of.moment() },
          at: cropsSpot(of.crop(), of.pin(), of.seenPart(), shownPart),
          sides,
          against: of.against(),
          frame,
          captions: { ...of.names(), middle: of.place() },
        },
        quit.signal,
      )
      await saveAs(picture, `${of.title()} crops.png`)
    } catch (error) {
      of.failed(error)
    } finally {
      isCropping.value = false
    }
  }

  return { isCropping, saveView, saveCrops }
}
