import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import GuessField from './GuessField.vue'

const field = (guess?: number) => {
  const wrapper = mount(GuessField, { props: { name: 'Kofi M.', guess, editable: true } })
  const input = wrapper.get('input')
  return { wrapper, input, value: () => (input.element as HTMLInputElement).value }
}

describe('the field of a guess', () => {
  it('keeps what is being typed while other guesses come back', async () => {
    const { wrapper, input, value } = field()
    await input.trigger('focus')
    await input.setValue('3')
    await wrapper.setProps({ name: 'Kofi M.', guess: undefined, editable: true })
    expect(value()).toBe('3')
    await input.setValue('34')
    await input.trigger('blur')
    expect(wrapper.emitted('keep')).toEqual([[34]])
  })

  it('shows what was kept elsewhere as soon as nobody types in it', async () => {
    const { wrapper, value } = field(20)
    expect(value()).toBe('20')
    await wrapper.setProps({ guess: 25 })
    expect(value()).toBe('25')
  })

  it('says nothing when nothing changed, takes a guess back when emptied, and hands on nonsense to be refused', async () => {
    const { wrapper, input } = field(20)
    await input.trigger('blur')
    expect(wrapper.emitted('keep')).toBeUndefined()
    await input.setValue('')
    await input.trigger('blur')
    await input.setValue('many')
    await input.trigger('blur')
    expect(wrapper.emitted('keep')).toEqual([[null], [0]])
  })
})
