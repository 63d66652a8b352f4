import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type MachineView } from '@/api/client'
import ThisMachine from './ThisMachine.vue'

const whole: MachineView = {
  cores: 8,
  memoryBytes: 3.2e9,
  mostBytes: 4e9,
  nets: 'cores',
  graphics: false,
  noGraphics: 'this build runs nets on cores alone',
  coding: 'the cores',
  there: '0-7',
  share: { memory: 1, whileWorking: 1 },
}

async function opened() {
  const page = mount(ThisMachine, { global: { plugins: [createPinia()] } })
  await flushPromises()
  await page.get('h2 button').trigger('click')
  return page
}
const press = (page: Awaited<ReturnType<typeof opened>>, label: string) =>
  page
    .findAll('dl button')
    .find((one) => one.text() === label)!
    .trigger('click')

describe('what of this machine the work may use', () => {
  beforeEach(() => {
    vi.restoreAllMocks()
    vi.spyOn(api, 'machine').mockResolvedValue(whole)
  })

  it('is told in a line and changed at once', async () => {
    const share = vi
      .spyOn(api, 'shareMachine')
      .mockImplementation((wanted) => Promise.resolve({ ...whole, cores: 4, share: wanted }))
    const page = await opened()
    expect(page.get('h2 .label').text()).toBe('8 of 8 cores · up to 4.0 GB')
    await press(page, '4')
    await flushPromises()
    expect(share).toHaveBeenLastCalledWith({ cores: '0-3', memory: 1, whileWorking: 1 })
    await press(page, 'wait')
    await flushPromises()
    expect(share).toHaveBeenLastCalledWith({ cores: '0-3', memory: 1, whileWorking: 0 })
    expect(page.get('h2 .label').text()).toBe(
      '4 of 8 cores · up to 4.0 GB · while somebody works, renders wait',
    )
  })

  it('offers a graphics processor where there is one, and says why not elsewhere', async () => {
    const without = await opened()
    expect(without.get('dl').text()).toContain('cores: this build runs nets on cores alone')
    expect(without.findAll('dl button').some((one) => one.text() === 'the graphics processor')).toBe(false)
    const here = { ...whole, noGraphics: undefined }
    vi.spyOn(api, 'machine').mockResolvedValue(here)
    const share = vi
      .spyOn(api, 'shareMachine')
      .mockImplementation((wanted) => Promise.resolve({ ...here, graphics: wanted.graphics!, share: wanted }))
    const page = await opened()
    await press(page, 'the graphics processor')
    await flushPromises()
    expect(share).toHaveBeenLastCalledWith({ memory: 1, whileWorking: 1, graphics: true })
    await press(page, 'the cores')
    await flushPromises()
    expect(share).toHaveBeenLastCalledWith({ memory: 1, whileWorking: 1, graphics: false })
  })

  it('names cores where somebody wants just those', async () => {
    const share = vi
      .spyOn(api, 'shareMachine')
      .mockImplementation((wanted) => Promise.resolve({ ...whole, cores: 2, share: wanted }))
    const page = await opened()
    await press(page, 'these…')
    await page.get('input').setValue('2,6')
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(share).toHaveBeenLastCalledWith({ cores: '2,6', memory: 1, whileWorking: 1 })
    expect(page.find('input').exists()).toBe(true)
  })
})
