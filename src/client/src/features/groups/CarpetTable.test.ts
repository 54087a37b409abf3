import { mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import CarpetTable from './CarpetTable.vue'

const group: Schemas['GroupView'] = {
  slot: { slotId: 1, day: '2026-11-30', start: '09:40:00', minutes: 15, adult: 'Tomasz Birk', where: 'Round table' },
  skill: 'bond.hidden-5',
  short: 'Hidden part to five',
  iCan: '',
  activity: 'Under the lid',
  reason: 'All two are ready.',
  sessionId: null,
  run: false,
  children: [
    { id: 1, name: 'Kofi M.', reason: 'With a prompt on Monday.', strength: 2 },
    { id: 2, name: 'Wren A.', reason: 'Nearly.', strength: 3 },
  ],
}
const price: Schemas['PriceView'] = { to: 0, price: 24, breaks: ['two children there'], reason: 'Not seen yet.' }
const table = (props: Partial<InstanceType<typeof CarpetTable>['$props']> = {}) =>
  mount(CarpetTable, {
    props: { group, classId: 1, editable: true, ...props },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })

describe('a table on the carpet', () => {
  it('has its aim, its place in the week and a reason for each child', () => {
    const text = table().text()
    for (const part of ['Hidden part to five', 'Mon 9:40', 'Tomasz Birk', 'With a prompt on Monday.'])
      expect(text).toContain(part)
  })

  it('lets a name be picked up by click and by drag, and marks the one that is held', async () => {
    const wrapper = table({ picked: { id: 2, name: 'Wren A.' } })
    const [kofi, wren] = wrapper.findAll('button.name')
    expect(wren!.attributes('aria-pressed')).toBe('true')
    await kofi!.trigger('click')
    await kofi!.trigger('dragstart')
    await wren!.trigger('dragstart')
    expect(wrapper.emitted('pick')).toEqual([
      [{ id: 1, name: 'Kofi M.', reason: 'With a prompt on Monday.', strength: 2 }],
      [{ id: 1, name: 'Kofi M.', reason: 'With a prompt on Monday.', strength: 2 }],
    ])
  })

  it('shows the price, what it breaks and why, before anything is put down', async () => {
    const wrapper = table({ picked: { id: 9, name: 'Gus H.' }, price })
    expect(wrapper.get('.price').text()).toContain('Costs 24 points')
    expect(wrapper.get('.price').text()).toContain('two children there.')
    // A name ends in a stop of its own.
    await wrapper.setProps({ price: { ...price, breaks: ['It is no next step for Gus H.'] } })
    expect(wrapper.get('.price .warn').text()).toBe('It is no next step for Gus H.')
    await wrapper.get('.price button').trigger('click')
    await wrapper.get('article').trigger('drop')
    expect(wrapper.emitted('put')).toHaveLength(2)
    await wrapper.setProps({ price: { ...price, price: -6, breaks: [] } })
    expect(wrapper.get('.price').text()).toContain('Gains 6 points')
  })

  it('answers why not, and offers the set in which it would be so', async () => {
    const wrapper = table({ picked: { id: 9, name: 'Gus H.' }, price })
    await wrapper.findAll('.price button')[1]!.trigger('click')
    expect(wrapper.emitted('whyNot')).toHaveLength(1)

    // While it is worked out: said at once, and not to be asked again.
    await wrapper.setProps({ looking: true })
    expect(wrapper.get('.price [role=status]').text()).toBe('Looking…')
    expect(wrapper.findAll('.price button')).toHaveLength(1)
    await wrapper.setProps({
      looking: false,
      why: { sentence: 'Eight points worse.', price: 8, instead: { groups: [] } as never },
    })
    expect(wrapper.get('.price').text()).toContain('Eight points worse.')
    await wrapper.findAll('.price button')[1]!.trigger('click')
    expect(wrapper.emitted('takeWhy')).toHaveLength(1)
    await wrapper.setProps({ why: { sentence: 'Not ready yet.', price: null, instead: null } })
    expect(wrapper.findAll('.price button')).toHaveLength(1)
  })

  it('has pegs for a child, the aim and the whole group; a kept group needs no other', async () => {
    const wrapper = table({ lockedChildren: [2], aimLocked: false })
    const [aim, keep, kofi, wren] = wrapper.findAll('button.lock')
    expect([kofi, wren].map((b) => b!.attributes('aria-pressed'))).toEqual(['false', 'true'])
    expect(kofi!.attributes('aria-label')).toBe('Kofi M. stays at this table')
    await aim!.trigger('click')
    await keep!.trigger('click')
    await kofi!.trigger('click')
    expect(Object.keys(wrapper.emitted())).toEqual(expect.arrayContaining(['lockAim', 'keep', 'lockChild']))
    expect(wrapper.emitted('lockChild')).toEqual([[1]])
    await wrapper.setProps({ kept: true })
    expect(wrapper.findAll('button.lock[disabled]')).toHaveLength(3)
  })

  it('takes no drop where nothing was priced, and no moves where nothing can change', async () => {
    const wrapper = table({ editable: false })
    await wrapper.get('article').trigger('drop')
    expect(wrapper.emitted('put')).toBeUndefined()
    expect(wrapper.findAll('button.name, button.lock')).toHaveLength(0)
  })
})
