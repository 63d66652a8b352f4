import type { Glass } from './glass'
import type { Edge, Look } from './paint'

/** How somebody looked at a clip, so that leaving its bench or loading the page anew changes nothing. */
export interface KeptView {
  readonly frame?: number
  readonly panel?: string
  readonly glass?: Glass
  readonly fitted?: boolean
  readonly look?: Look
  readonly edge?: Edge
}

const key = (clip: string) => `awlsmith.view.${clip}`

/** What this window keeps of a clip; nothing where it keeps none. */
export function keptView(clip: string): KeptView {
  try {
    const had: unknown = JSON.parse(sessionStorage.getItem(key(clip)) ?? '{}')
    return had !== null && typeof had === 'object' ? had : {}
  } catch {
    return {}
  }
}

/** Keeps parts of it, beside what is kept already. */
export function keepView(clip: string, part: KeptView) {
  try {
    sessionStorage.setItem(key(clip), JSON.stringify({ ...keptView(clip), ...part }))
  } catch {
    // a browser that keeps nothing begins anew
  }
}
