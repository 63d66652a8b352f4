import { describe, expect, it } from 'vitest'
import type { PlanView, Recipe, StepDescription, TakeFigures, TakeView } from '@/api/client'
import { shuffled } from './blind'
import { did, didInMotion, takenWords } from './figures'
import { Queue } from './queue'
import { columns, targets } from './scopes'
import { harmLines, recipeWords, takeLines } from './sheetWords'
import { isInTreated, isMuch, middleOf, type Sides, sidesOf, sourceWish, treatedWish } from './sides'
import { present, values, variables, varied } from './vary'

const recipe: Recipe = {
  awlsmith: 1,
  steps: [
    { step: 'crop', on: false, settings: {} },
    { step: 'enlarge', on: true, settings: { factor: 2, model: 'worn' } },
  ],
}
const kinds: StepDescription[] = [
  { id: 'crop', group: 'prepare', name: 'Crop', purpose: '', params: [] },
  {
    id: 'enlarge',
    name: 'Enlarge',
    group: 'enlarge',
    purpose: '',
    params: [
      {
        key: 'factor',
        label: 'Factor',
        kind: 'real',
        unit: 'x',
        min: 0.125,
        max: 8,
        effect: '',
        options: [],
      },
      {
        key: 'model',
        label: 'Model',
        kind: 'choice',
        unit: '',
        fallback: 'none',
        effect: '',
        options: [
          { id: 'none', label: 'None', effect: '' },
          { id: 'worn', label: 'Worn', effect: '' },
        ],
      },
    ],
  },
]

describe('varying', () => {
  const [factor, model] = variables(recipe, kinds) as [
    ReturnType<typeof variables>[0],
    ReturnType<typeof variables>[0],
  ]

  it('offers the settings of steps that are on, with what they are now', () => {
    expect(variables(recipe, kinds).map((one) => one.label)).toEqual(['Enlarge: Factor', 'Enlarge: Model'])
    expect(present(recipe, factor)).toBe('2')
    expect(present({ ...recipe, steps: recipe.steps.map((s) => ({ ...s, settings: {} })) }, model)).toBe(
      'none',
    )
  })

  it('reads values with commas between and says what is allowed', () => {
    expect(values(factor.param, '1.5, 2,, 2 4')).toEqual({ values: [1.5, 2, 4], wrong: '' })
    expect(values(factor.param, '2, 99').wrong).toContain('0.125..8 x')
    expect(values(factor.param, 'two').wrong).not.toBe('')
    expect(values(model.param, 'worn,none').values).toEqual(['worn', 'none'])
    expect(values(model.param, 'magic').wrong).toContain('magic')
  })

  it('makes a take for every value, or for every pair', () => {
    const one = varied(recipe, model, ['none', 'worn'])
    expect(one.map((take) => take.name)).toEqual(['None', 'Worn'])
    expect(one[0]?.recipe.steps[1]?.settings).toEqual({ factor: 2, model: 'none' })
    const pairs = varied(recipe, model, ['none', 'worn'], factor, [2, 3])
    expect(pairs).toHaveLength(4)
    expect(pairs[3]?.name).toBe('Worn, Factor 3')
    expect(pairs[3]?.recipe.steps[1]?.settings).toEqual({ factor: 3, model: 'worn' })
    expect(recipe.steps[1]?.settings['factor']).toBe(2)
  })
})

describe('what a step took out', () => {
  const source = { noise: 8, blocks: 1, light: 0.4 }
  const calm = { ...source, noise: 2 }

  it('tells whether detail went with the noise', () => {
    expect(takenWords({ source, steps: [calm], taken: [0.1] }, 0, 'denoise')).toContain('10 % runs one way')
    expect(takenWords({ source, steps: [calm], taken: [0.1] }, 0, 'denoise')).toContain('little detail')
    expect(takenWords({ source, steps: [calm], taken: [0.4] }, 0, 'denoise')).toMatch(/: detail goes with it/)
  })

  it('is silent where no noise went, or nothing was measured', () => {
    expect(takenWords(undefined, 0, 'denoise')).toBe('')
    expect(takenWords({ source, steps: [source], taken: [0.4] }, 0, 'denoise')).toBe('')
    expect(takenWords({ source, steps: [calm], taken: [] }, 0, 'denoise')).toBe('')
    expect(takenWords({ source, steps: [calm], taken: [0.4] }, 0, 'deblur')).toBe('')
    expect(takenWords({ source, steps: [source, calm], taken: [0.4, 0.4] }, 1, 'denoise')).not.toBe('')
  })
})

describe('what a step did', () => {
  const before = { noise: 8, edges: 3, halo: 0, blocks: 1.2, light: 0.4 }

  it('is the figure it changed most', () => {
    expect(did(before, { ...before, noise: 2, edges: 2.6 }).text).toBe('noise 8.0→2.0')
    expect(did(before, { ...before, edges: 1.5 }).text).toBe('edges 3.0→1.5 px')
    expect(did(before, { ...before, light: 0.51 })).toEqual({ text: 'light 40.0→51.0 %', worse: '' })
    expect(did(before, before)).toEqual({ text: '', worse: '' })
  })

  it('says where it made something worse', () => {
    expect(did(before, { ...before, noise: 12 }).worse).toBe('more noise')
    expect(did(before, { ...before, edges: 4 }).worse).toBe('softer')
    expect(did(before, { ...before, halo: 0.2, blocks: 1.5 }).worse).toBe('more blocks, haloes of 20 %')
    expect(did({ noise: 8, blocks: 1, light: 0.4 }, { noise: 8, blocks: 1, light: 0.4 }).worse).toBe('')
  })
})

describe('what a treatment did in motion', () => {
  it('tells restlessness beside the figure that changed most', () => {
    const figures = {
      source: { noise: 8, edges: 3, blocks: 1, light: 0.4 },
      treated: { noise: 2, edges: 3, blocks: 1, light: 0.4 },
      sourceFlicker: 4.1,
      flicker: 1.2,
    } as TakeFigures
    expect(didInMotion(figures)).toEqual({ text: 'noise 8.0→2.0 · flicker 4.1→1.2', worse: '' })
    expect(didInMotion({ ...figures, flicker: 6 }).worse).toBe('more flicker')
    const shaken = { ...figures, sourceShake: 3.2, shake: 0.4 }
    expect(didInMotion(shaken).text).toBe('noise 8.0→2.0 · flicker 4.1→1.2 · shake 3.2→0.4 px')
    expect(didInMotion({ ...shaken, shake: 4 }).worse).toBe('more shake')
    expect(didInMotion({ ...shaken, shake: 3.1 }).text).not.toContain('shake')
    const { source, treated } = figures
    expect(didInMotion({ source, treated } as TakeFigures).text).toBe('noise 8.0→2.0')
  })
})

describe('the sheet in words', () => {
  const figures = {
    source: before(),
    treated: { noise: 2.06, edges: 1.64, blocks: 1, light: 0.4 },
    flicker: 0.61,
    change: 5.2,
    secondsAFrame: 0.2,
    against: { psnr: 31.234, ssim: 0.91234 },
    harm: [
      { frame: 3, x: 50, y: 40, why: 'texture lost', harm: true, amount: 2 },
      { frame: 9, x: 5, y: 4, why: 'halo', harm: true, amount: 2 },
    ],
  } as TakeFigures
  function before() {
    return { noise: 7.9, edges: 4.1, blocks: 1.4, light: 0.4 }
  }

  it('tells a take’s figures in short lines', () => {
    const plan = { estimateSeconds: 186, frames: 600 } as PlanView
    expect(takeLines({ figures, plan }, undefined, false)).toEqual([
      'noise 2.1 · blocks 1.0',
      'edges 1.6 px · flicker 0.6',
      'change 5.2 · 31.23 dB',
      'SSIM 0.9123',
      '0.31 s a frame · 3 min',
    ])
    expect(takeLines({ figures, plan: { frames: 100 } as PlanView }, undefined, false).at(-1)).toBe(
      '0.20 s a frame · 20 s',
    )
    expect(takeLines(undefined, before(), true)).toEqual(['noise 7.9 · blocks 1.4', 'edges 4.1 px'])
    expect(takeLines({}, undefined, false)).toEqual([])
  })

  it('names the pin that harm lies in', () => {
    const pin = { id: 'p', clipId: 'c', name: 'deck', frame: 3, x: 30, y: 30, width: 40, height: 30 }
    expect(harmLines(figures, [pin])).toEqual(['texture lost at pin 1', 'halo at 5, 4'])
    expect(harmLines(undefined, [pin])).toEqual([])
  })

  it('tells the steps of a recipe', () => {
    const take = { recipe } as unknown as TakeView
    expect(recipeWords(take, kinds)).toBe('enlarge worn 2')
    expect(recipeWords({ recipe: { steps: [] } } as unknown as TakeView, kinds)).toBe('nothing')
  })

  it('shuffles without losing or doubling', () => {
    expect(shuffled([1, 2, 3, 4], () => 0)).toEqual([2, 3, 4, 1])
    expect(shuffled([1, 2, 3, 4]).sort()).toEqual([1, 2, 3, 4])
  })
})

describe('sides', () => {
  const sides: Sides = {
    recipe,
    turning: 0,
    source: { width: 100, height: 80 },
    treated: { width: 120, height: 160 },
    placement: { x: -40, y: 0, width: 200, height: 160 },
    moves: false,
    waits: '',
  }
  const spot = {
    clip: 'c',
    frame: 1,
    later: 0,
    glass: { x: 50, y: 40, scale: 2 },
    screen: { width: 40, height: 40 },
    margin: 0,
  }

  it('come from the plan of a recipe', () => {
    const plan = {
      base: { steps: 1, width: 80, height: 100 },
      steps: [{ width: 160, height: 200 }],
      placement: { x: 0, y: 0, width: 160, height: 200 },
      moving: true,
      waiting: [{ step: 0, doing: 'following the camera' }],
    } as unknown as PlanView
    expect(sidesOf(recipe, plan)).toMatchObject({
      turning: 1,
      source: { width: 80, height: 100 },
      treated: { width: 160, height: 200 },
      moves: true,
      waits: '0 following the camera',
    })
  })

  it('ask for the same spot in each picture’s own pixels', () => {
    expect(treatedWish(spot, sides).need.part).toEqual({ x: 40, y: 60, width: 40, height: 40 })
    expect(sourceWish(spot, sides, false).need.part).toEqual({ x: 80, y: 60, width: 40, height: 40 })
    expect(sourceWish(spot, sides, true)).toMatchObject({ recipe: undefined, size: sides.source })
  })

  it('show the middle first where a model has much to make', () => {
    const wide = { ...spot, screen: { width: 1600, height: 900 }, glass: { x: 50, y: 40, scale: 2 } }
    const large = {
      ...sides,
      treated: { width: 3840, height: 2160 },
      placement: { x: 0, y: 0, width: 3840, height: 2160 },
    }
    const wish = treatedWish(
      { ...wide, screen: { width: 640, height: 360 }, glass: { x: 50, y: 40, scale: 38.4 } },
      large,
    )
    expect(isMuch(wish)).toBe(false)
    const whole = treatedWish({ ...wide, glass: { x: 50, y: 40, scale: 16 } }, large)
    expect(isMuch(whole)).toBe(true)
    expect(isMuch({ ...whole, recipe: undefined })).toBe(false)
    const middle = middleOf(whole)
    expect(middle.need.reduce).toBe(whole.need.reduce)
    const { part, reduce } = middle.need
    expect(part.x % Math.max(2, reduce)).toBe(0)
    expect(part.width).toBeLessThanOrEqual(whole.need.part.width / 2)
    expect(part.x).toBeGreaterThanOrEqual(whole.need.part.x + whole.need.part.width / 4)
    expect(part.x + part.width).toBeLessThanOrEqual(whole.need.part.x + whole.need.part.width)
  })

  it('know what a crop leaves', () => {
    expect(isInTreated(sides, { x: 30, y: 0, width: 20, height: 20 })).toBe(true)
    expect(isInTreated(sides, { x: 0, y: 0, width: 15, height: 20 })).toBe(false)
    expect(isInTreated(sides, { x: 85, y: 0, width: 15, height: 20 })).toBe(false)
  })
})

describe('the queue behind the glass', () => {
  const settle = () => new Promise((done) => setTimeout(done))

  it('runs one after another, and waits while it is held', async () => {
    const queue = new Queue()
    const ran: number[] = []
    const signal = new AbortController().signal
    const release = queue.hold()
    const all = [1, 2].map((n) => queue.add(async () => ran.push(n), signal))
    await settle()
    expect(ran).toEqual([])
    release()
    release()
    await Promise.all(all)
    expect(ran).toEqual([1, 2])
  })

  it('goes on after a failure and skips what was given up', async () => {
    const queue = new Queue()
    const signal = new AbortController().signal
    const given = new AbortController()
    const release = queue.hold()
    const bad = queue.add(() => Promise.reject(new Error('no')), signal)
    const gone = queue.add(async () => 'gone', given.signal)
    const last = queue.add(async () => 'last', signal)
    given.abort()
    release()
    await expect(bad).rejects.toThrow('no')
    await expect(gone).rejects.toThrow('given up')
    await expect(last).resolves.toBe('last')
  })
})

describe('scopes', () => {
  it('make small counts visible beside large ones', () => {
    expect(columns([0, 1, 100])).toEqual([0, 0.1, 1])
  })

  /** 75 % bars as code values from the equations of BT.601-7 section 2.5; the 709 ones from BT.709-6 item 3. */
  it('mark where the bars of 75 % lie', () => {
    const at = (matrix: string, name: string) => {
      const target = targets(matrix).find((one) => one.name === name)
      return [Math.round(target?.cb ?? 0), Math.round(target?.cr ?? 0)]
    }
    expect(at('smpte170m', 'R')).toEqual([100, 212])
    expect(at('smpte170m', 'B')).toEqual([212, 114])
    expect(at('bt709', 'R')).toEqual([109, 212])
    expect(at('bt709', 'C')).toEqual([147, 44])
  })
})
