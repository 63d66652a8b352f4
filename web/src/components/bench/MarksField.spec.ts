import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import MarksField from './MarksField.vue'

const param = {
  key: 'scenes',
  label: 'Cuts by hand',
  kind: 'marks',
  unit: '',
  effect: '',
  options: [
    { id: '1', label: 'a cut', effect: '' },
    { id: '0', label: 'no cut', effect: '' },
  ],
}

const stubs = { 'v-btn': { template: '<button><slot /></button>' } }
const field = (value: string | undefined, seconds: number) =>
  mount(MarksField, { props: { param, value, problem: '', seconds }, global: { stubs } })

describe('marks by hand', () => {
  it('are set at the frame that is seen, in order, and changed there', async () => {
    const set = field('5:0', 1.24)
    await set.find('[data-test=mark-1]').trigger('click')
    expect(set.emitted('change')).toEqual([['1.24:1,5:0']])
    const other = field('1.24:1,5:0', 1.2405)
    expect(other.find('[data-test=mark-1]').exists()).toBe(false)
    await other.find('[data-test=mark-0]').trigger('click')
    expect(other.emitted('change')![0]![0]).toMatch(/^1\.24\d*:0,5:0$/)
  })

  it('are taken out one by one, the last leaving nothing set', async () => {
    const two = field('1:1,2:0', 9)
    expect(two.text()).toContain('1.000 s a cut')
    await two.find('[aria-label="Take out the mark at 2.000 s"]').trigger('click')
    expect(two.emitted('change')).toEqual([['1:1']])
    const one = field('1:1', 9)
    await one.find('[aria-label="Take out the mark at 1.000 s"]').trigger('click')
    expect(one.emitted('change')).toEqual([[undefined]])
  })
})
