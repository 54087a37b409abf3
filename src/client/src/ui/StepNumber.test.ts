import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import StepNumber from './StepNumber.vue'

const number = (modelValue: number) =>
  mount(StepNumber, { props: { modelValue, label: 'First number', low: 0, high: 10 } })

describe('a number to step', () => {
  it('goes up and down and stops at its bounds', async () => {
    const wrapper = number(9)
    const [less, more] = wrapper.findAll('button')
    await less!.trigger('click')
    await more!.trigger('click')
    expect(wrapper.emitted('update:modelValue')).toEqual([[8], [10]])
    expect(number(10).findAll('button')[1]!.attributes('disabled')).toBeDefined()
    expect(number(0).findAll('button')[0]!.attributes('disabled')).toBeDefined()
  })

  it('takes what is typed, kept within bounds, and ignores what is no number', async () => {
    const wrapper = number(3)
    await wrapper.get('input').setValue('42')
    await wrapper.get('input').setValue('seven')
    expect(wrapper.emitted('update:modelValue')).toEqual([[10]])
  })
})
