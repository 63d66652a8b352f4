import type { FiguresView, StepsView, TakeFigures } from '@/api/client'

/** What a step did, in few words, and whether it made something worse. */
export interface Did {
  readonly text: string
  readonly worse: string
}

/** A change smaller than this share is none. */
const NOTHING = 0.08
/** Overshoot of edges that stand alone, beyond which it shows as a halo, as a share of their height. */
const HALO = 0.06

/** Pixels of the source that a frame lies beside its steady place, below which nobody sees it. */
const LEAST_SHAKE = 0.3

const one = (v: number) => v.toFixed(1)

interface Figure {
  readonly name: string
  readonly unit: string
  readonly of: (f: FiguresView) => number | undefined
  /** Least change that counts. */
  readonly least: number
  readonly isWorse: (before: number, after: number) => boolean
}

const kinds: Figure[] = [
  {
    name: 'noise',
    unit: '',
    of: (f) => f.noise,
    least: 0.3,
    isWorse: (before, after) => after > before * 1.15 + 0.3,
  },
  {
    name: 'blocks',
    unit: '',
    of: (f) => f.blocks,
    least: 0.15,
    isWorse: (before, after) => after > before + 0.15,
  },
  {
    name: 'edges',
    unit: ' px',
    of: (f) => f.edges,
    least: 0.15,
    isWorse: (before, after) => after > before * 1.12,
  },
  {
    name: 'light',
    unit: ' %',
    of: (f) => 100 * f.light,
    least: 1,
    // lighter or darker is a matter of taste
    isWorse: () => false,
  },
]

/** The figure that a step changed most, and those it made worse; the rest is silence. */
export function did(before: FiguresView, after: FiguresView): Did {
  let text = ''
  let most = NOTHING
  const worse: string[] = []
  for (const kind of kinds) {
    const a = kind.of(before)
    const b = kind.of(after)
    if (a === undefined || b === undefined) {
      continue
    }
    const change = Math.abs(b - a) / Math.max(a, 0.1)
    if (Math.abs(b - a) >= kind.least && change > most) {
      most = change
      text = `${kind.name} ${one(a)}→${one(b)}${kind.unit}`
    }
    if (Math.abs(b - a) >= kind.least && kind.isWorse(a, b)) {
      worse.push(kind.name === 'edges' ? 'softer' : `more ${kind.name}`)
    }
  }
  const halo = after.halo ?? 0
  if (halo > HALO && halo > (before.halo ?? 0) + 0.03) {
    worse.push(`haloes of ${Math.round(100 * halo)} %`)
  }
  return { text, worse: worse.join(', ') }
}

/** Share of what a step took away that runs one way: white noise's, and from where on it is not noise alone. */
const NOISE_RUNS = 0.08
const SHAPES_RUN = 0.2

/** Steps that are there to take something out. */
const cleaning = new Set(['denoise', 'repair', 'undither', 'bands', 'dust'])

/** Whether detail went with the noise that a cleaning step took out; empty of others, and where it took none out. */
export function takenWords(figures: StepsView | undefined, step: number, kind: string): string {
  if (!cleaning.has(kind)) {
    return ''
  }
  const after = figures?.steps[step]
  const before = figures?.steps[step - 1] ?? figures?.source
  const taken = figures?.taken[step]
  if (!after || !before || typeof taken !== 'number' || after.noise > 0.9 * before.noise) {
    return ''
  }
  const share = `Of what it takes out here ${Math.round(100 * taken)} % runs one way, of noise alone ${Math.round(100 * NOISE_RUNS)} %`
  return taken < SHAPES_RUN ? `${share}: little detail goes with it.` : `${share}: detail goes with it.`
}

/** What a treatment did over a span: its most changed figure, and the restlessness of what rests. */
export function didInMotion(figures: TakeFigures): Did {
  const { text, worse } = did(figures.source, figures.treated)
  const before = figures.sourceFlicker
  const after = figures.flicker
  const parts = text === '' ? [] : [text]
  if (before !== undefined && after !== undefined) {
    parts.push(`flicker ${one(before)}→${one(after)}`)
  }
  const shookBefore = figures.sourceShake
  const shakes = figures.shake
  const knowsShake = shookBefore !== undefined && shakes !== undefined
  if (knowsShake && Math.abs(shakes - shookBefore) >= LEAST_SHAKE) {
    parts.push(`shake ${one(shookBefore)}→${one(shakes)} px`)
  }
  const shaken = knowsShake && shakes > shookBefore + LEAST_SHAKE
  const restless = before !== undefined && after !== undefined && after > before * 1.15 + 0.3
  return {
    text: parts.join(' · '),
    worse: [worse, restless ? 'more flicker' : '', shaken ? 'more shake' : ''].filter(Boolean).join(', '),
  }
}
