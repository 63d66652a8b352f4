import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import TagFields from './TagFields.vue'

function fields(tags?: Record<string, string>) {
  const page = mount(TagFields, {
    props: {
      modelValue: tags,
      'onUpdate:modelValue': (next: Record<string, string> | undefined) =>
        page.setProps({ modelValue: next }),
    },
  })
  return page
}

describe('what a file says of itself', () => {
  it('is as the source says until words are written', async () => {
    const page = fields()
    expect(page.find('input').exists()).toBe(false)
    await page.get('[data-test=tags]').trigger('click')
    await page.get('[data-test=tag-title]').setValue('{clip}, restored')
    expect(page.props('modelValue')).toEqual({ title: '{clip}, restored' })
    await page.get('[data-test=tag-title]').setValue('')
    expect(page.props('modelValue')).toBeUndefined()
  })

  it('can be left out, and taken from the source again', async () => {
    const page = fields({ title: 'A' })
    const leave = () => page.findAll('label')[1]!.get('button')
    await leave().trigger('click')
    expect(page.props('modelValue')).toEqual({ title: 'A', artist: '' })
    expect(page.get('[data-test=tag-artist]').attributes('disabled')).toBeDefined()
    await leave().trigger('click')
    expect(page.props('modelValue')).toEqual({ title: 'A' })
  })
})
