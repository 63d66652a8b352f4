import type { FiguresView, PinView, RecipeStep, StepDescription, TakeFigures, TakeView } from '@/api/client'
import type { SheetRow } from '@/stores/useSheet'
import { wait } from './words'

const one = (v: number) => v.toFixed(1)

function common(figures: FiguresView): string[] {
  const first = [`noise ${one(figures.noise)}`, `blocks ${one(figures.blocks)}`]
  const edges = figures.edges === undefined ? [] : [`edges ${one(figures.edges)} px`]
  return [first.join(' · '), ...edges]
}

/** The figures of a row as short lines. */
export function takeLines(
  row: SheetRow | undefined,
  source: FiguresView | undefined,
  isSource: boolean,
): string[] {
  if (isSource) {
    return source ? common(source) : []
  }
  const figures = row?.figures
  if (!figures) {
    return []
  }
  const [first = '', edges] = common(figures.treated)
  const second = [
    ...(edges ? [edges] : []),
    ...(figures.flicker === undefined ? [] : [`flicker ${one(figures.flicker)}`]),
  ]
  const against = figures.against
  const third = [
    `change ${one(figures.change)}`,
    ...(against ? [`${against.psnr === undefined ? '∞' : against.psnr.toFixed(2)} dB`] : []),
  ]
  const lines = [first, second.join(' · '), third.join(' · ')]
  if (against) {
    lines.push(`SSIM ${against.ssim.toFixed(4)}`)
  }
  const frames = row?.plan?.frames ?? 0
  const whole = row?.plan?.estimateSeconds ?? figures.secondsAFrame * frames
  lines.push(`${(whole / Math.max(1, frames)).toFixed(2)} s a frame · ${wait(whole)}`)
  return lines
}

/** Where harm was found, told by the pin it lies in where it lies in one. */
export function harmLines(figures: TakeFigures | undefined, pins: readonly PinView[]): string[] {
  const told = (figures?.harm ?? []).map((place) => {
    const at = pins.findIndex(
      (pin) =>
        pin.frame === place.frame &&
        place.x >= pin.x &&
        place.y >= pin.y &&
        place.x <= pin.x + pin.width &&
        place.y <= pin.y + pin.height,
    )
    return at < 0 ? `${place.why} at ${place.x}, ${place.y}` : `${place.why} at pin ${at + 1}`
  })
  return [...new Set(told)]
}

/** A take's steps in a few words: their names, with what is set on the last. */
export function recipeWords(take: TakeView, kinds: readonly StepDescription[]): string {
  const steps = (take.recipe as unknown as { steps: RecipeStep[] }).steps.filter((step) => step.on)
  const named = steps.map((step) => {
    const kind = kinds.find((one) => one.id === step.step)
    const told = ['model', 'mode', 'kernel', 'factor', 'target', 'rate'].flatMap((key) => {
      const value = step.settings[key]
      return value === undefined || value === 'none' ? [] : [String(value)]
    })
    return [(kind?.name ?? step.step).toLowerCase(), ...told].join(' ')
  })
  return named.join(', ') || 'nothing'
}
