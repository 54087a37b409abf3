import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, calls, fakeApi, openPage } from '@/testing/page'
import SetOutPage from './SetOutPage.vue'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const share = (activity: string, amount: number, start = '09:15:00') => ({
  day: '2026-11-25',
  start,
  where: 'Carpet',
  for: 'Carpet',
  activity,
  amount,
})
const list = {
  from: '2026-11-25',
  to: '2026-11-25',
  things: [
    {
      id: 'counters-blue',
      name: 'Blue counters',
      atOnce: 12,
      owned: 7,
      short: 'Short by 5. Add 5 stones instead.',
      stillShort: 0,
      printed: false,
      shares: [share('Under the lid', 7), share('Three wells', 5, '10:00:00')],
    },
    {
      id: 'bell',
      name: 'Bell',
      atOnce: 1,
      owned: 0,
      short: 'Short by 1. Nothing in the cupboard stands in.',
      stillShort: 1,
      printed: false,
      shares: [share('Under the lid', 1)],
    },
  ],
  prints: [
    {
      sheet: 'Ten frames',
      variant: 'Blank',
      for: 'Carpet',
      activity: 'Load the wagon',
      day: '2026-11-25',
      numbers: '0-5',
      pages: 2,
    },
  ],
  pages: 2,
  prepareMinutes: 6,
  together: [{ day: '2026-11-25', start: '09:15:00', what: ['Under the lid, carpet', 'Three wells, table'] }],
  cautions: [],
  standing: 'Follow local rules.',
}

describe('the list of what to set out', () => {
  beforeEach(() => {
    answer('GET', '/api/classes/{classId}/days/{day}/set-out', list)
    answer('GET', '/api/classes/{classId}/weeks/{day}/set-out', { ...list, from: '2026-11-23', to: '2026-11-27' })
  })

  it('says how many at once, where, what stands in, and marks only what is still short', async () => {
    const { wrapper } = await openPage(SetOutPage, '/c/1/set-out/2026-11-25')
    const rows = wrapper.findAll('tbody tr')
    expect(rows[0]!.text()).toContain('Add 5 stones instead')
    expect(rows[0]!.find('.warn').exists()).toBe(false)
    expect(rows[1]!.find('.warn').exists()).toBe(true)
    expect(rows[0]!.findAll('.share').map((s) => s.text().replace(/\s+/g, ' '))).toEqual([
      '9:15 carpet: 7, Under the lid',
      '10:00 carpet: 5, Three wells',
    ])
  })

  it('leads on from a day without school', async () => {
    answer('GET', '/api/classes/{classId}/days/{day}/set-out', { ...list, things: [], nextSchoolDay: '2026-11-30' })
    const { wrapper } = await openPage(SetOutPage, '/c/1/set-out/2026-11-29')
    expect(wrapper.text()).toContain('No school on this day.')
    expect(wrapper.get('.none a').attributes('href')).toBe('/c/1/set-out/2026-11-30')
  })

  it('has the pack as one file, and says what goes to one place', async () => {
    const { wrapper } = await openPage(SetOutPage, '/c/1/set-out/2026-11-25')
    expect(wrapper.get('a.main').attributes('href')).toBe('/api/classes/1/days/2026-11-25/pack')
    expect(wrapper.get('a.main').text()).toBe('Print the pack: 2 pages')
    expect(wrapper.findAll('.place').map((p) => p.get('p').text())).toEqual([
      'blue counters 7, bell 1',
      'blue counters 5',
    ])
  })

  it('turns to the next school day over a weekend, and to the whole week', async () => {
    const { wrapper, router } = await openPage(SetOutPage, '/c/1/set-out/2026-11-27')
    await wrapper.get('[aria-label="Day after"]').trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.params.day).toBe('2026-11-30')
    await wrapper.findAll('.turn .button')[2]!.trigger('click')
    await flushPromises()
    expect(calls.at(-1)!.path).toBe('/api/classes/{classId}/weeks/{day}/set-out')
    expect(wrapper.text()).toContain('week of 23 November')
    await wrapper.get('[aria-label="Week after"]').trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.params.day).toBe('2026-12-07')
  })

  it('leads to the plan where nothing is planned', async () => {
    answer('GET', '/api/classes/{classId}/days/{day}/set-out', {
      ...list,
      things: [],
      prints: [],
      pages: 0,
      together: [],
    })
    const { wrapper } = await openPage(SetOutPage, '/c/1/set-out/2026-11-25')
    expect(wrapper.text()).toContain('Nothing is planned for this day')
    expect(wrapper.text()).toContain('Nothing to print')
  })
})
