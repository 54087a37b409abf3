import { describe, expect, it, vi } from 'vitest'
import { answer, fakeApi, openPage } from '@/testing/page'
import HowItRuns from './HowItRuns.vue'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const well = {
  version: '0.26.0',
  since: '2026-11-20T07:00:00Z',
  backupsOn: true,
  slowest: [
    { part: 'Groups', seconds: 1.24 },
    { part: 'Fonts', seconds: 0.9 },
  ],
  lastBackup: '2026-11-25T08:00:00Z',
  backupFault: null,
  freeGigabytes: 40.7,
  littleRoom: false,
  faults: [],
}

describe('how it runs', () => {
  it('says that all is well without raising a voice', async () => {
    answer('GET', '/api/school/running', well)
    const { wrapper } = await openPage(HowItRuns, '/c/1/school')
    expect(wrapper.text()).toContain('The last backup is of')
    expect(wrapper.text()).toContain('40 GB are free')
    expect(wrapper.text()).toContain('Groups (1.2 s).')
    expect(wrapper.text()).not.toContain('Fonts')
    expect(wrapper.find('.told').exists()).toBe(false)
  })

  it('says what is lost where nobody has set where backups go, and offers none', async () => {
    answer('GET', '/api/school/running', { ...well, backupsOn: false, lastBackup: null })
    const { wrapper } = await openPage(HowItRuns, '/c/1/school')
    expect(wrapper.find('.told').text()).toContain('everything on it is lost')
    expect(wrapper.find('button').exists()).toBe(false)
  })

  it('tells a backup that fails, little room, and faults by their numbers', async () => {
    answer('GET', '/api/school/running', {
      ...well,
      backupFault: 'There is no room on the other disk.',
      freeGigabytes: 0.4,
      littleRoom: true,
      faults: [{ id: 'ab12cd34', at: '2026-11-24T09:00:00Z' }],
    })
    const { wrapper } = await openPage(HowItRuns, '/c/1/school')
    const told = wrapper.find('.told').text()
    expect(told).toContain('There is no room on the other disk.')
    expect(told).toContain('Only 0.4 GB')
    expect(told).toContain('ab12cd34')
  })
})
