import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/app/api/client'
import ChildRow from './ChildRow.vue'
import type { Marked } from './turns'

const row = (marked: Marked[] = [], now = 0) =>
  mount(ChildRow, {
    attachTo: document.body,
    props: {
      number: 2,
      name: 'Kofi M.',
      away: false,
      picked: false,
      item: { ask: 'Show the card 6' } as Schemas['Item'],
      marked,
      now,
    },
  })
const codeOf = (wrapper: ReturnType<typeof row>, label: string) => wrapper.get(`button[aria-label="Kofi M.: ${label}"]`)

describe('a child’s row on the clipboard', () => {
  it('records alone with one tap on the name and any other code with one tap on it', async () => {
    const wrapper = row()
    await codeOf(wrapper, 'alone').trigger('click')
    await codeOf(wrapper, 'Not yet').trigger('click')
    expect(wrapper.emitted('record')).toEqual([['Alone'], ['NotYet']])
  })

  it('says what the child has next', () => expect(row().text()).toContain('Show the card 6'))

  it('records the code on which a slide ends, once', async () => {
    const wrapper = row()
    const together = codeOf(wrapper, 'Together')
    document.elementFromPoint = vi.fn(() => together.element)
    await codeOf(wrapper, 'alone').trigger('pointerdown')
    await together.trigger('pointerup')
    await together.trigger('pointerup')
    expect(wrapper.emitted('record')).toEqual([['Together']])
  })

  it('does not count a tap as a slide', async () => {
    const wrapper = row()
    const prompted = codeOf(wrapper, 'Prompted')
    document.elementFromPoint = vi.fn(() => prompted.element)
    await prompted.trigger('pointerdown')
    await prompted.trigger('pointerup')
    expect(wrapper.emitted('record')).toBeUndefined()
  })

  it('offers undo for the last tap while its time runs, and fills the code that was recorded last', async () => {
    const marked: Marked[] = [
      { id: 'a', support: 'Alone', numbers: null, until: 500 },
      { id: 'b', support: 'Prompted', numbers: null, until: 900 },
    ]
    const wrapper = row(marked, 400)
    expect(codeOf(wrapper, 'Prompted').classes()).toContain('on')
    expect(codeOf(wrapper, 'alone').classes()).not.toContain('on')
    await wrapper.get('button[aria-label="Undo prompted for Kofi M."]').trigger('click')
    expect(wrapper.emitted('undo')).toEqual([['b']])
    await wrapper.setProps({ now: 901 })
    expect(wrapper.find('.undo button').exists()).toBe(false)
  })

  it('shows what another adult noted without filling a code of one’s own', () => {
    const wrapper = row([{ id: 'x', support: 'Together', numbers: null, by: 'Tomasz' }])
    expect(wrapper.text()).toContain('Tomasz: together')
    expect(codeOf(wrapper, 'Together').classes()).not.toContain('on')
  })

  it('counts repeats', () => {
    const twice = ['a', 'b'].map((id): Marked => ({ id, support: 'Alone', numbers: null }))
    expect(row(twice).text()).toContain('alone ×2')
  })
})
