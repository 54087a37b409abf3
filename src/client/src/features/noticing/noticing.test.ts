import { describe, expect, it, vi } from 'vitest'
import { answer, fakeApi, openPage } from '@/testing/page'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))
const { default: LookAgainPage } = await import('./LookAgainPage.vue')
const { default: SlipsPage } = await import('./SlipsPage.vue')
const { default: AgreementPage } = await import('../agreement/AgreementPage.vue')

describe('what is to be looked at again', () => {
  it('stands skill by skill with the children, why, and something to do', async () => {
    const mark = {
      childId: 3,
      child: 'Kofi M.',
      skill: 's',
      short: 'Say to ten',
      strength: 3,
      why: 'last alone ten school days ago.',
    }
    answer('GET', '/api/classes/{classId}/look-again', {
      minutes: 12,
      neverSure: [],
      faded: [{ skill: 's', short: 'Say to ten', iCan: 'I can.', activityId: 'a', activity: 'Drum', children: [mark] }],
    })
    const { wrapper } = await openPage(LookAgainPage, '/c/1/class/look-again')
    expect(wrapper.text()).toContain('about 12 minutes a list')
    expect(wrapper.findAll('h2').map((h) => h.text())).toEqual(['May have faded'])
    expect(wrapper.get('li').text()).toContain('Kofi M.')
    expect(wrapper.get('details').text()).toContain('Kofi M. last alone ten school days ago.')
    expect(wrapper.get('a.end').attributes('href')).toContain('/activities/a')
  })
  it('says so when nothing is', async () => {
    answer('GET', '/api/classes/{classId}/look-again', { minutes: 12, neverSure: [], faded: [] })
    const { wrapper } = await openPage(LookAgainPage, '/c/1/class/look-again')
    expect(wrapper.text()).toContain('Nothing needs a second look just now.')
  })
})

describe('the board of slips', () => {
  it('says who shows which, how often, and what helps, and labels no child', async () => {
    answer('GET', '/api/classes/{classId}/slips', {
      days: 20,
      slips: [
        {
          skill: 's', short: 'Name to ten', slip: 'Mixes up 6 and 9', helps: ['Lay 6 and 9 beside each other'], activityId: null, activity: null,
          children: [{ id: 3, name: 'Kofi M.', times: 3, last: '2026-11-20' }, { id: 4, name: 'Edie M.', times: 1, last: '2026-11-20' }],
        }, // prettier-ignore
      ],
    })
    const { wrapper } = await openPage(SlipsPage, '/c/1/class/slips')
    expect(wrapper.findAll('.who a').map((a) => a.text())).toEqual(['Kofi M. ×3', 'Edie M.'])
    expect(wrapper.get('.helps').text()).toBe('Lay 6 and 9 beside each other')
    expect(wrapper.text()).toContain('not a label')
  })
})

describe('two adults', () => {
  const session = {
    sessionId: 9,
    day: '2026-11-24',
    short: 'See to five',
    adults: [{ adultId: 1, name: 'Ines', moments: 8 }],
  }
  it('are told how to begin while there is nothing to compare', async () => {
    answer('GET', '/api/classes/{classId}/agreement', [])
    const { wrapper } = await openPage(AgreementPage, '/c/1/class/agreement')
    expect(wrapper.text()).toContain('tick “On my own”')
  })
  it('see share and kappa with their intervals, and where they differ', async () => {
    answer('GET', '/api/classes/{classId}/agreement', [session])
    const row = [2, 1, 0, 0]
    answer('GET', '/api/classes/{classId}/agreement/{sessionId}', {
      session, first: 'Ines', second: 'Tomasz', pairs: 8, unpaired: 1, percent: { value: 0.75, low: 0.41, high: 0.93 }, kappa: null,
      weighted: { value: 0.71, low: 0.28, high: 1 }, table: [row, row, row, row], sentence: 'The same in 75 %.',
      apart: [{ child: 'Farah J.', numbers: '4', first: 'Prompted', second: 'Alone' }],
    }) // prettier-ignore
    const { wrapper } = await openPage(AgreementPage, '/c/1/class/agreement')
    const text = wrapper.text()
    expect(text).toContain('0.75 (0.41 to 0.93)')
    expect(text).toContain('not defined: one level only')
    expect(wrapper.findAll('.apart tbody td').map((td) => td.text())).toEqual(['Farah J.', '4', 'Prompted', 'Alone'])
    expect(wrapper.findAll('td.same')).toHaveLength(4)
  })
})
