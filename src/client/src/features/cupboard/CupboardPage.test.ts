import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, calls, fakeApi, openPage } from '@/testing/page'
import CupboardPage from './CupboardPage.vue'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const thing = (id: string, name: string, count: number, risks: string[] = []) => ({
  id,
  name,
  purpose: 'Counting',
  size: '25 × 25 × 4 mm',
  shape: 'Flat',
  colour: 'blue',
  material: 'plastic',
  count,
  own: id.startsWith('own'),
  risks,
})
const cupboard = {
  shelves: [
    {
      purpose: 'Counting',
      name: 'Things to count',
      things: [
        thing('counters-blue', 'Blue counters', 36, ['Small part']),
        thing('shells', 'Shells', 0),
        thing('own-lemons', 'Lemons', 18),
      ],
    },
  ],
  cares: { mouths: true, allergies: ['Gluten'] },
  allergens: [
    { allergen: 'Gluten', name: 'wheat and gluten' },
    { allergen: 'Nuts', name: 'nuts' },
  ],
  cautions: [{ name: 'Small part', text: 'Count them back in.', items: ['blue counters'] }],
  standing: 'Follow local rules.',
}

describe('the cupboard', () => {
  beforeEach(() => answer('GET', '/api/classes/{classId}/cupboard', cupboard))
  const open = async () => (await openPage(CupboardPage, '/c/1/cupboard')).wrapper
  const shown = (wrapper: Awaited<ReturnType<typeof open>>) => wrapper.findAll('.shelf b').map((b) => b.text())

  it('shows what is owned, everything when asked, and what is looked for wherever it is', async () => {
    const wrapper = await open()
    expect(shown(wrapper)).toEqual(['Blue counters', 'Lemons'])
    await wrapper.get('.tools input[type=checkbox]').setValue(false)
    expect(shown(wrapper)).toEqual(['Blue counters', 'Shells', 'Lemons'])
    await wrapper.get('.tools input[type=checkbox]').setValue(true)
    await wrapper.get('.tools input[type=text]').setValue('shel')
    expect(shown(wrapper)).toEqual(['Shells'])
  })

  it('has the risk beside the thing and the caution in full once, closed by the standing advice', async () => {
    const wrapper = await open()
    expect(wrapper.findAll('.risk').map((r) => r.text())).toEqual(['Small part'])
    expect(wrapper.get('[role=note]').text()).toContain('Count them back in.')
    expect(wrapper.get('[role=note]').text()).toContain('Follow local rules.')
  })

  it('keeps the first of two ticks that follow each other before the server has answered', async () => {
    const wrapper = await open()
    const ticks = wrapper.findAll('.cares input')
    void ticks[2]!.setValue(true)
    void ticks[0]!.setValue(false)
    await flushPromises()
    expect(calls.filter((c) => c.path.endsWith('/cares')).map((c) => c.body)).toEqual([
      { allergies: ['Gluten', 'Nuts'] },
      { mouths: false },
    ])
  })

  it('sends a count when it is changed, and takes out what is our own only', async () => {
    const wrapper = await open()
    await wrapper.get('[aria-label="How many: Blue counters"]').setValue('40')
    await wrapper.get('[aria-label="How many: Blue counters"]').trigger('blur')
    await flushPromises()
    const put = calls.find((c) => c.method === 'PUT')!
    expect([put.params.path!.item, put.body]).toEqual(['counters-blue', { count: 40 }])
    expect(wrapper.findAll('.shelf .button').map((b) => b.attributes('aria-label'))).toEqual(['Take out Lemons'])
  })
})
