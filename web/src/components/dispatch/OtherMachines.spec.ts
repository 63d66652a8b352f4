import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type WorkerView } from '@/api/client'
import { vuetify } from '@/vuetify'
import OtherMachines from './OtherMachines.vue'

const pier: WorkerView = {
  id: 'p',
  name: 'pier',
  madeAt: '',
  segments: 12,
  isWorking: true,
}

beforeEach(() => setActivePinia(createPinia()))
afterEach(() => vi.restoreAllMocks())

function shown() {
  return mount(OtherMachines, { global: { plugins: [vuetify] }, attachTo: document.body })
}

describe('other machines', () => {
  it('tells what each does and has brought', async () => {
    vi.spyOn(api, 'workers').mockResolvedValue([
      pier,
      { ...pier, id: 'q', name: 'quay', isWorking: false, seenAt: new Date().toISOString() },
      { ...pier, id: 'n', name: 'new', isWorking: false, segments: 0 },
    ])
    const machines = shown()
    await vi.waitFor(() => expect(machines.text()).toContain('12 parts brought'))
    expect(machines.find('[data-test=worker-pier]').text()).toContain('at work')
    expect(machines.find('[data-test=worker-quay]').text()).toContain('waits for work')
    expect(machines.find('[data-test=worker-new]').text()).toContain('never seen yet')
    machines.unmount()
  })

  it('is added by a token that is shown once, with what to type there', async () => {
    vi.spyOn(api, 'workers').mockResolvedValue([])
    const add = vi.spyOn(api, 'addWorker').mockResolvedValue({ token: 'abc' })
    const machines = shown()
    await machines.find('[data-test=add-machine]').trigger('click')
    const field = machines.find('.naming input')
    await field.setValue('quay')
    await field.trigger('keydown.enter')
    await vi.waitFor(() => expect(add).toHaveBeenCalledWith('quay'))
    await vi.waitFor(() => expect(machines.text()).toContain('AWLSMITH_TOKEN=abc'))
    expect(machines.text()).toContain(`worker --server ${window.location.origin}`)
    machines.unmount()
  })

  it('is taken away', async () => {
    vi.spyOn(api, 'workers').mockResolvedValue([pier])
    const remove = vi.spyOn(api, 'removeWorker').mockResolvedValue({} as never)
    const machines = shown()
    await vi.waitFor(() => expect(machines.text()).toContain('pier'))
    await machines.find('[data-test=worker-pier] button').trigger('click')
    expect(remove).toHaveBeenCalledWith('p')
    machines.unmount()
  })
})
