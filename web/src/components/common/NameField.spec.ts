import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import NameField from './NameField.vue'

const field = () => mount(NameField, { props: { name: 'Winch', label: 'Name' }, attachTo: document.body })

describe('a name typed where it stands', () => {
  it('is given once by Enter, though the field loses its focus then', async () => {
    const one = field()
    await one.find('input').setValue(' Landing ')
    await one.find('input').trigger('keydown.enter')
    await one.find('input').trigger('blur')
    expect(one.emitted('done')).toEqual([['Landing']])
  })

  it('is given by going elsewhere, and stays on Escape', async () => {
    const one = field()
    await one.find('input').setValue('Landing')
    await one.find('input').trigger('blur')
    expect(one.emitted('done')).toEqual([['Landing']])
    const other = field()
    await other.find('input').setValue('Landing')
    await other.find('input').trigger('keydown.esc')
    await other.find('input').trigger('blur')
    expect(other.emitted('done')).toEqual([[undefined]])
  })

  it('stays where nothing, or the same, was typed', async () => {
    for (const typed of ['  ', 'Winch']) {
      const one = field()
      await one.find('input').setValue(typed)
      await one.find('input').trigger('keydown.enter')
      expect(one.emitted('done')).toEqual([[undefined]])
    }
  })
})
