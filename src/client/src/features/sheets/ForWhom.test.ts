import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import ForWhom from './ForWhom.vue'

const children = [
  { id: 4, name: 'Kofi M.' },
  { id: 7, name: 'Wren A.' },
  { id: 9, name: 'Gus H.' },
]
const groups = [{ sessionId: 31, day: '2026-11-26', start: '09:40:00', skill: 'Hidden part to five', children: [4, 9] }]
const choice = (chosen: string) => mount(ForWhom, { props: { children, groups, chosen } })

describe('for whom pages are printed', () => {
  it('is nobody, everyone, or each by a tap', async () => {
    const some = choice('4')
    const [everyone, nobody] = some.findAll('button')
    await everyone!.trigger('click')
    await nobody!.trigger('click')
    const [kofi, wren] = some.findAll('input')
    expect((kofi!.element as HTMLInputElement).checked).toBe(true)
    await wren!.trigger('change')
    await kofi!.trigger('change')
    expect(some.emitted('choose')).toEqual([['4,7,9'], [''], ['4,7'], ['']])
  })

  it('is a group with one choice, named by its day, time and skill', async () => {
    const some = choice('')
    expect(some.get('option[value="31"]').text()).toBe('Thu 9:40, Hidden part to five')
    await some.get('select').setValue('31')
    expect(some.emitted('choose')).toEqual([['4,9']])
  })
})
