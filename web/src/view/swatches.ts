import type { ModelView, ParamDescription, RecipeStep } from '@/api/client'
import { perSecond } from './words'

/** One treatment that can be chosen by looking. */
export interface Swatch {
  readonly model: string
  readonly mode: string
  /** What it aims at, in a word. */
  readonly label: string
  readonly effect: string
  /** Input pixels a second on this machine, once measured. */
  readonly speed: number | undefined
  /** What training measured of it. */
  readonly gain: string
  readonly step: RecipeStep
}

/** Treatments for one kind of footage. */
export interface SwatchRow {
  readonly model: string
  readonly label: string
  readonly purpose: string
  readonly swatches: Swatch[]
}

/** What a model is told goes with one that cannot be told, and an amount of made texture with the mode that makes it. */
export function settingsFor(
  settings: RecipeStep['settings'],
  model: string,
  mode: string,
  isTold: boolean,
): RecipeStep['settings'] {
  const gone = ['model', 'mode', ...(isTold ? [] : ['softness']), ...(mode === 'made' ? [] : ['texture'])]
  const kept = Object.fromEntries(Object.entries(settings).filter(([key]) => !gone.includes(key)))
  return model === 'none' ? kept : { ...kept, model, mode }
}

/** Everything that can be chosen, kind by kind, what needs no model last. */
export function rowsOf(
  step: RecipeStep,
  models: ParamDescription['options'],
  modes: ParamDescription['options'],
  at: { modesOf: (id: string) => string[]; isTold: (id: string, mode: string) => boolean; all: ModelView[] },
): SwatchRow[] {
  const rows = models
    .filter((one) => one.id !== 'none')
    .map((family) => {
      const had = at.modesOf(family.id)
      const swatches = modes
        .filter((one) => had.includes(one.id))
        .map((one): Swatch => {
          // what smooth calms is made by crisp, where a model has it
          const by = one.id !== 'smooth' ? one.id : had.includes('crisp') ? 'crisp' : 'quality'
          const card = at.all.find((card) => card.id === family.id && card.mode === by)
          return {
            model: family.id,
            mode: one.id,
            label: one.label.toLowerCase(),
            effect: one.effect,
            speed: card?.pixelsASecond,
            gain: card?.training['gain'] ?? '',
            step: {
              ...step,
              settings: settingsFor(step.settings, family.id, one.id, at.isTold(family.id, one.id)),
            },
          }
        })
      return { model: family.id, label: family.label.toLowerCase(), purpose: family.effect, swatches }
    })
  const none = models.find((one) => one.id === 'none')
  const plain: Swatch = {
    model: 'none',
    mode: '',
    label: 'sampled plainly',
    effect: none?.effect ?? '',
    speed: undefined,
    gain: '',
    step: { ...step, settings: settingsFor(step.settings, 'none', '', false) },
  }
  return [...rows, { model: 'none', label: 'without a model', purpose: plain.effect, swatches: [plain] }]
}

/** Frames of a size in a second, said as short as there is room for: {@code 3.1/s}. */
export function shortSpeed(
  pixelsASecond: number | undefined,
  size: { width: number; height: number },
): string {
  return pixelsASecond === undefined ? '' : `${perSecond(pixelsASecond / (size.width * size.height))}/s`
}
