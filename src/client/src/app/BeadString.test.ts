import { mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import type { Schemas } from './api/client'
import BeadString from './BeadString.vue'

const route = reactive({ name: 'week', params: { classId: '1' } })
vi.mock('vue-router', () => ({ useRoute: () => route }))

const day = (date: string, state: Schemas['DayState'], more: Partial<Schemas['WeekDay']> = {}) =>
  ({
    day: date,
    state,
    closed: null,
    focus: null,
    starters: [],
    transition: null,
    choice: null,
    slots: [],
    ...more,
  }) as Schemas['WeekDay']
const week: Schemas['WeekView'] = {
  monday: '2026-11-23',
  jar: '',
  term: 'Autumn',
  planned: true,
  days: [
    day('2026-11-23', 'Recorded', { focus: { short: 'Split four' } as Schemas['WeekFocus'] }),
    day('2026-11-24', 'Taught'),
    day('2026-11-25', 'Planned'),
    day('2026-11-26', 'Closed', { closed: 'Snow' }),
    day('2026-11-27', 'Open'),
  ],
}
const beads = () =>
  mount(BeadString, {
    props: { day: '2026-11-24', today: '2026-11-25', week },
    global: { stubs: { RouterLink: RouterLinkStub } },
  }).findAllComponents(RouterLinkStub)

beforeEach(() => (route.name = 'week'))

describe('the string of beads', () => {
  it('says of each day how far it has come', () => {
    expect(
      beads()
        .slice(1, 6)
        .map((b) => b.attributes('aria-label')),
    ).toEqual([
      'Monday 23 November: recorded, Split four',
      'Tuesday 24 November: taught',
      'Wednesday 25 November: planned, today',
      'Thursday 26 November: no lessons, Snow',
      'Friday 27 November: not planned',
    ])
  })
  it('marks the day that is open, and today', () => {
    const [, , tuesday, wednesday] = beads()
    expect(tuesday!.attributes('aria-current')).toBe('date')
    expect(wednesday!.classes()).toContain('now')
  })
  it('leads to the same kind of page, or to the day where there is none', () => {
    expect(beads()[1]!.props('to')).toEqual({ name: 'week', params: { classId: '1', day: '2026-11-23' } })
    route.name = 'set-up'
    expect(beads()[1]!.props('to')).toMatchObject({ name: 'today' })
  })
  it('turns to the weeks before and after', () => {
    const all = beads()
    expect(all[0]!.props('to')).toMatchObject({ params: { day: '2026-11-16' } })
    expect(all.at(-1)!.props('to')).toMatchObject({ params: { day: '2026-11-30' } })
  })
})
