import type { Look } from './paint'

/** What the glass can be asked for. */
export interface GlassActs {
  fit(): void
  setScale(scale: number): void
  setLook(look: Look): void
  flip(on: boolean): void
  nudgeEdge(by: number): void
  turnEdge(by: number): void
  amplifyMore(): void
  brighter(): void
}

const LOOKS: readonly [key: string, look: Look][] = [
  ['w', 'wipe'],
  ['e', 'pair'],
  ['d', 'difference'],
  ['s', 'source'],
  ['r', 'treated'],
]
const SCALES = [1, 2, 4, 8]
/** Of the screen's width, and degrees. */
const NUDGE = 0.02
const TURN = 5

/** The keys that act on the glass alone, while it is there. */
export function glassKeys(glass: () => GlassActs | undefined): Record<string, () => void> {
  return {
    ...Object.fromEntries(LOOKS.map(([key, look]) => [key, () => glass()?.setLook(look)])),
    ...Object.fromEntries(SCALES.map((scale) => [String(scale), () => glass()?.setScale(scale)])),
    '0': () => glass()?.fit(),
    f: () => glass()?.flip(true),
    '[': () => glass()?.nudgeEdge(-NUDGE),
    ']': () => glass()?.nudgeEdge(NUDGE),
    '{': () => glass()?.turnEdge(-TURN),
    '}': () => glass()?.turnEdge(TURN),
    '+': () => glass()?.amplifyMore(),
    b: () => glass()?.brighter(),
  }
}
