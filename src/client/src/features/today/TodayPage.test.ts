import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, fakeApi, openPage } from '@/testing/page'
import TodayPage from './TodayPage.vue'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const empty = {
  isSchoolDay: true, nextSchoolDay: null, different: null, lost: null, carpet: null, more: [], notes: [], starters: [], groups: [],
  setOut: [], children: [], lookAgain: [], cautions: [], standing: '', jar: '', choice: null, transition: null,
} // prettier-ignore
const school: Record<string, object> = {
  '2026-11-29': { ...empty, day: '2026-11-29', isSchoolDay: false, nextSchoolDay: '2026-11-30' },
  '2026-11-30': { ...empty, day: '2026-11-30' },
  '2027-07-31': { ...empty, day: '2027-07-31', isSchoolDay: false, different: 'Summer' },
}

describe('a day without school', () => {
  beforeEach(() => {
    answer('GET', '/api/classes/{classId}/first-hour', { over: true, steps: [], week: [], holidays: [] })
    answer('GET', '/api/classes/{classId}/days/{day}', ({ day }: { day: string }) => school[day])
  })

  it('has the next school day under it, with the links of that day', async () => {
    const { wrapper } = await openPage(TodayPage, '/c/1/today/2026-11-29')
    expect(wrapper.text()).toContain('No school today.')
    expect(wrapper.get('h2').text()).toContain('30 November')
    expect(wrapper.get('a.main').attributes('href')).toBe('/c/1/week/2026-11-30')
    wrapper.unmount()
  })

  it('says what it is, and no more where no school day comes', async () => {
    const { wrapper } = await openPage(TodayPage, '/c/1/today/2027-07-31')
    expect(wrapper.text()).toContain('No school: Summer.')
    expect(wrapper.find('h2').exists()).toBe(false)
    expect(wrapper.text()).not.toContain('Nothing is planned')
    wrapper.unmount()
  })
})
