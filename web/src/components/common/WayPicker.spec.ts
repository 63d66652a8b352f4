import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type TakeView, type Way } from '@/api/client'
import { vuetify } from '@/vuetify'
import WayPicker from './WayPicker.vue'

const recipe = { awlsmith: 1, steps: [{ step: 'crop', on: true, settings: {} }] }

beforeEach(() => {
  setActivePinia(createPinia())
  vi.spyOn(api, 'recipes').mockResolvedValue([{ id: 'r', name: 'winches', recipe, madeAt: '' }])
  vi.spyOn(api, 'takes').mockResolvedValue([{ recipe } as unknown as TakeView])
})
afterEach(() => vi.restoreAllMocks())

async function picker(way: Way, usual = false) {
  const one = mount(WayPicker, {
    props: { modelValue: way, label: 'give', usual },
    global: { plugins: [vuetify] },
  })
  await flushPromises()
  return one
}

describe('what many clips are treated with', () => {
  it('is each one’s own suggestion, a saved recipe or that of a clip', async () => {
    const one = await picker({ how: 'SUGGESTED' })
    const select = one.findComponent({ name: 'VSelect' })
    expect(select.props('items').map((item: { title: string }) => item.title)).toEqual([
      'what each one’s condition suggests',
      'the recipe “winches”',
    ])
    expect(one.find('[data-test=measured]').exists()).toBe(false)
    select.vm.$emit('update:modelValue', 'r')
    await flushPromises()
    expect(one.emitted('update:modelValue')?.at(-1)).toEqual([{ how: 'SAME', recipe }])
    select.vm.$emit('update:modelValue', 'some clip')
    await flushPromises()
    expect(api.takes).toHaveBeenCalledWith('some clip')
  })

  it('keeps its steps and measures each where that is wished', async () => {
    const one = await picker({ how: 'SAME', recipe }, true)
    expect(one.text()).toContain('values measured of each')
    one.findComponent({ name: 'VCheckbox' }).vm.$emit('update:modelValue', true)
    expect(one.emitted('update:modelValue')?.at(-1)).toEqual([{ how: 'MEASURED', recipe }])
    one.findComponent({ name: 'VSelect' }).vm.$emit('update:modelValue', 'USUAL')
    await flushPromises()
    expect(one.emitted('update:modelValue')?.at(-1)).toEqual([{ how: 'USUAL' }])
  })
})
