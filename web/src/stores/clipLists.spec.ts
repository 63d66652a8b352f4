import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref, shallowRef } from 'vue'
import {
  api,
  type ClipFacts,
  type PinView,
  type PlanView,
  type ProofView,
  type Recipe,
  type StepDescription,
  type TakeView,
} from '@/api/client'
import { useCropping } from '@/view/useCropping'
import { type Told, useFeed } from './feed'
import { useClipTakes } from './useClipTakes'
import { pinAround, usePins } from './usePins'
import { useProofs } from './useProofs'

const heard = new Map<string, (state: never) => void>()
function say<N extends keyof Told>(name: N, state: Told[N]) {
  heard.get(name)?.(state as never)
}

beforeEach(() => {
  setActivePinia(createPinia())
  heard.clear()
  vi.spyOn(useFeed(), 'listen').mockImplementation((name, listener) => {
    heard.set(name, listener as never)
    return () => heard.delete(name)
  })
})
afterEach(() => vi.restoreAllMocks())

function within<T>(make: () => T) {
  const scope = effectScope()
  return { ...scope.run(make)!, scope }
}

const take = (id: string, verdict: TakeView['verdict'] = 'OPEN', clipId = 'c') =>
  ({ id, clipId, name: id, verdict, version: 1 }) as TakeView
const pin = (id: string, x: number, y: number): PinView => ({
  id,
  clipId: 'c',
  name: id,
  frame: 3,
  x,
  y,
  width: 40,
  height: 22,
})

describe('the takes of a clip', () => {
  it('are kept by what the stream tells, discarded ones apart', async () => {
    vi.spyOn(api, 'takes').mockResolvedValue([take('A'), take('B', 'DISCARDED')])
    const { all, open, discarded, load, scope } = within(() => useClipTakes('c', vi.fn()))
    await load()
    say('take', take('C'))
    say('take', take('A', 'KEPT'))
    say('take', take('X', 'OPEN', 'another'))
    expect(all.value.map((one) => one.id)).toEqual(['A', 'B', 'C'])
    expect(open.value.map((one) => one.verdict)).toEqual(['KEPT', 'OPEN'])
    expect(discarded.value).toHaveLength(1)
    say('take-removed', { id: 'C', clipId: 'c' })
    expect(all.value).toHaveLength(2)
    scope.stop()
    expect(heard.size).toBe(0)
  })

  it('tell why one cannot be made, and stay as they are', async () => {
    const fail = vi.fn()
    vi.spyOn(api, 'addTakes').mockRejectedValue(new Error('too many'))
    const { add, all } = within(() => useClipTakes('c', fail))
    expect(await add([{ recipe: { awlsmith: 1, steps: [] } }])).toEqual([])
    expect(fail).toHaveBeenCalledTimes(1)
    expect(all.value).toEqual([])
  })
})

describe('the pins of a clip', () => {
  const size = { width: 320, height: 240 }

  it('have a loupe’s shape inside of the picture', () => {
    const usual = pinAround({ x: 100, y: 80 }, size)
    expect(usual).toMatchObject({ x: 83, width: 34 })
    expect(usual.height / usual.width).toBeCloseTo(74 / 133)
    expect(pinAround({ x: 0, y: 239 }, size)).toMatchObject({ x: 0 })
    expect(pinAround({ x: 0, y: 239 }, size).y + usual.height).toBeCloseTo(240)
    expect(pinAround({ x: 900, y: 500 }, { width: 1920, height: 1080 }).width).toBeCloseTo(137.1, 1)
  })

  it('are suggested where none is yet', async () => {
    const place = (x: number, y: number, why: string) => ({ frame: 3, x, y, why, harm: true, amount: 5 })
    vi.spyOn(api, 'pins').mockResolvedValue([pin('there', 80, 60)])
    vi.spyOn(api, 'places').mockResolvedValue([
      place(100, 70, 'halo'),
      place(250, 200, 'texture lost'),
      place(252, 203, 'changes most'),
    ])
    const drop = vi.spyOn(api, 'dropPin').mockImplementation(async () => pin('new', 0, 0))
    const { load, suggest } = within(() => usePins('c', vi.fn()))
    await load()
    await suggest({ awlsmith: 1, steps: [] }, 3, size)
    expect(drop.mock.calls.map(([, one]) => one.name)).toEqual(['texture lost'])
  })

  it('follow the stream', () => {
    const { pins } = within(() => usePins('c', vi.fn()))
    say('pins', { clipId: 'c', pins: [pin('a', 1, 1)] })
    say('pins', { clipId: 'other', pins: [] })
    expect(pins.value).toHaveLength(1)
  })
})

describe('the proofs of a clip', () => {
  it('follow the stream and tell failures', async () => {
    const fail = vi.fn()
    const proof = (id: string, framesDone: number) => ({ id, clipId: 'c', framesDone }) as ProofView
    vi.spyOn(api, 'proofs').mockResolvedValue([proof('p', 0)])
    vi.spyOn(api, 'prove').mockRejectedValue(new Error('too long'))
    const { proofs, load, prove } = within(() => useProofs('c', fail))
    await load()
    say('proof', proof('p', 7))
    say('proof', proof('q', 0))
    expect(proofs.value.map((one) => one.framesDone)).toEqual([7, 0])
    say('proof-removed', { id: 'p', clipId: 'c' })
    expect(proofs.value).toHaveLength(1)
    expect(await prove({} as Parameters<typeof prove>[0])).toBeUndefined()
    expect(fail).toHaveBeenCalledTimes(1)
  })
})

describe('cropping', () => {
  function cropping(recipe: Recipe, scan = 'p') {
    const change = vi.fn()
    const state = shallowRef({ recipe })
    const made = within(() =>
      useCropping(
        ref({ layout: '4:2:0' } as ClipFacts),
        ref({ width: 100, height: 80 }),
        ref({ steps: [{ scan }] } as unknown as PlanView),
        state,
        ref([{ id: 'crop' }, { id: 'enlarge' }] as StepDescription[]),
        change,
      ),
    )
    return { ...made, change, state }
  }
  const enlarge = { step: 'enlarge', on: true, settings: {} }
  const crop = { step: 'crop', on: true, settings: { left: 10, top: 4 } }

  it('puts a new step before what enlarges, or takes the one there is', () => {
    const fresh = cropping({ awlsmith: 1, steps: [enlarge] })
    fresh.toggleCrop()
    expect(fresh.change.mock.calls[0]?.[0].recipe.steps.map((one: { step: string }) => one.step)).toEqual([
      'crop',
      'enlarge',
    ])
    expect(fresh.cropping.value).toBe(0)
    fresh.toggleCrop()
    expect(fresh.cropping.value).toBe(-1)
    const there = cropping({ awlsmith: 1, steps: [crop, enlarge] })
    there.toggleCrop()
    expect(there.change).not.toHaveBeenCalled()
    expect(there.crop.value).toEqual({ x: 10, y: 4, width: 90, height: 76 })
  })

  it('moves on whole chroma samples, and on lines of both fields', () => {
    expect(cropping({ awlsmith: 1, steps: [crop] }).cropStep.value).toEqual({ width: 2, height: 2 })
    const woven = cropping({ awlsmith: 1, steps: [crop] }, 'i')
    woven.cropping.value = 0
    expect(woven.cropStep.value).toEqual({ width: 2, height: 4 })
  })
})
