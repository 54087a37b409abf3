import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, calls, fakeApi, openPage } from '@/testing/page'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const days = (monday: string) =>
  [0, 1, 2, 3, 4].map((i) => ({
    day: new Date(Date.parse(`${monday}T12:00:00Z`) + i * 86_400_000).toISOString().slice(0, 10),
    school: true,
    places: 1,
    different: null,
  }))
const lesson = (skill: string, number: number, day: string, more = {}) => ({
  skill,
  short: skill === 'a' ? 'Say to ten' : 'See to five',
  strand: 'count',
  number,
  of: 2,
  stage: 'Introduce',
  how: 'introduce with objects',
  day,
  place: 0,
  reason: 'It needs nothing before it.',
  pinned: false,
  note: '',
  past: false,
  given: false,
  ...more,
})
const plan = {
  version: { version: 3, at: '2026-11-24T16:00:00Z', by: 'Ines Okonjo', what: 'Planned.' },
  canUndo: true,
  today: '2026-11-25',
  from: '2026-11-25',
  weeks: [
    { monday: '2026-11-23', term: 'Lantern term', days: days('2026-11-23') },
    { monday: '2026-11-30', term: 'Lantern term', days: days('2026-11-30') },
  ],
  strands: [{ id: 'count', name: 'Counting' }],
  lessons: [
    lesson('b', 1, '2026-11-24', { past: true, given: true }),
    lesson('a', 1, '2026-11-26'),
    lesson('a', 2, '2026-12-01'),
  ],
  reviews: [{ skill: 'a', short: 'Say to ten', strand: 'count', day: '2026-12-04', round: 1, reason: 'Due.' }],
  missed: [],
  margin: 'Two lessons to come, six places kept free.',
  suggestions: [
    {
      kind: 'NeedsLonger',
      skill: 'b',
      short: 'See to five',
      lessons: 1,
      days: [],
      children: [],
      next: null,
      sentence: 'One more lesson.',
    },
  ],
  versions: [],
}
const prices = [
  { day: '2026-11-27', refused: null, advice: [], with: null },
  { day: '2026-11-30', refused: null, advice: ['Too far apart.'], with: null },
  { day: '2026-12-02', refused: 'Trip: there is no lesson that day.', advice: [], with: null },
]

beforeEach(() => {
  answer('GET', '/api/classes/{classId}/plan', plan)
  answer('GET', '/api/classes/{classId}/plan/lessons/{skill}/{number}/days', prices)
})

describe('the year', () => {
  const open = async () => (await openPage((await import('./StringPage.vue')).default, '/c/1/year')).wrapper

  it('shows each lesson as a bead that says what it is, and the margin', async () => {
    const page = await open()
    expect(page.text()).toContain('Two lessons to come, six places kept free.')
    expect(page.findAll('.bead').map((b) => b.attributes('aria-label'))).toEqual([
      'See to five, lesson 1 of 2, Tuesday 24 November, given',
      'Say to ten, lesson 1 of 2, Thursday 26 November',
      'Say to ten, lesson 2 of 2, Tuesday 1 December',
    ])
    page.unmount()
  })

  it('walks along the beads by arrow keys and shows a lesson with its starters', async () => {
    const page = await open()
    await page.findAll('.bead')[0]!.trigger('click')
    await page.findAll('.bead')[0]!.trigger('keydown', { key: 'ArrowRight' })
    expect(page.find('.panel').text()).toContain('Say to ten')
    expect(page.find('.panel').text()).toContain('Fri 4 Dec')
    expect(page.findAll('.starter')).toHaveLength(1)
    page.unmount()
  })

  it('moves a lesson by the list of days, with the price before, and closed days not on offer', async () => {
    const page = await open()
    await page.findAll('.bead')[1]!.trigger('click')
    const list = page.find<HTMLSelectElement>('.panel select')
    await list.trigger('focus')
    await flushPromises()
    expect(list.findAll('option').map((o) => [o.text(), o.element.disabled])).toEqual([
      ['Choose a day', false],
      ['Fri 27 Nov', false],
      ['Mon 30 Nov – think again', false],
      ['Wed 2 Dec – no', true],
    ])
    await list.setValue('2026-11-30')
    expect(page.find('.panel').text()).toContain('Too far apart.')
    await page
      .findAll('.panel button')
      .find((b) => b.text() === 'Move it anyway')!
      .trigger('click')
    await flushPromises()
    expect(calls.find((c) => c.method === 'POST')).toMatchObject({
      path: '/api/classes/{classId}/plan/moves',
      body: { skill: 'a', number: 1, day: '2026-11-30', anyway: true },
    })
    page.unmount()
  })

  it('keeps notes, pins and undoes', async () => {
    const page = await open()
    await page.findAll('.bead')[1]!.trigger('click')
    await page.find('.panel textarea').setValue('Bring bells.')
    await page.find('.panel form').trigger('submit')
    await page
      .findAll('.panel button')
      .find((b) => b.text() === 'Pin it to its day')!
      .trigger('click')
    await page
      .findAll('button')
      .find((b) => b.text() === 'Undo')!
      .trigger('click')
    await flushPromises()
    expect(calls.filter((c) => c.method !== 'GET').map((c) => c.body ?? c.path)).toEqual([
      { version: 3, skill: 'a', number: 1, pinned: null, note: 'Bring bells.' },
      { version: 3, skill: 'a', number: 1, pinned: true, note: 'Bring bells.' },
      { version: 3 },
    ])
    page.unmount()
  })
})

describe('planning the year', () => {
  const ask = {
    source: 'Seasons',
    upTo: 'Summer',
    frameworks: [],
    skills: [],
    planId: null,
    dropped: [],
    bufferOneIn: 10,
    startersADay: 2,
    rounds: 3,
    moreOn: [],
    shorter: false,
    thorough: false,
    seed: 1,
  }
  const way = {
    kind: 'drop',
    title: 'Leave skills',
    loses: 'Five wait.',
    gains: 'It ends in July.',
    fits: true,
    dropped: ['X'],
    ask: { ...ask, dropped: ['x'] },
  }
  const draft = { id: 'd1', state: 'Done', progress: 1, doing: '', ask, leftOut: [], changed: [] }

  it('says by how much it does not fit and asks again the way that is taken', async () => {
    answer('GET', '/api/classes/{classId}/plan/scope', {
      usual: ask, from: '2026-11-25', until: '2027-07-09', teachingDays: 141, strands: plan.strands, frameworks: [], plans: [], skills: [],
      seasons: [{ season: 'Summer', skills: 106, lessons: 227 }],
    }) // prettier-ignore
    const over = {
      ...draft,
      fit: { lessons: 227, room: 126, buffer: 15, over: 101, reviewsOver: 0, sentence: 'It does not fit.' },
      ways: [way],
      plan: null,
    }
    answer('POST', '/api/classes/{classId}/plan/drafts', over)
    answer('POST', '/api/classes/{classId}/plan/fit', over.fit)
    answer('GET', '/api/classes/{classId}/first-hour', { over: true, steps: [], week: [], holidays: [] })
    answer('GET', '/api/classes/{classId}/plan/drafts/{id}', over)
    const { wrapper: page } = await openPage((await import('./MakePage.vue')).default, '/c/1/make-plan')
    await page.find('form').trigger('submit')
    await flushPromises()
    expect(page.text()).toContain('101')
    expect(page.text()).toContain('Five wait.')
    await page
      .findAll('button')
      .find((b) => b.text() === 'Take this way')!
      .trigger('click')
    await flushPromises()
    expect(calls.filter((c) => c.path.endsWith('/drafts')).map((c) => (c.body as typeof ask).dropped)).toEqual([
      [],
      ['x'],
    ])
    page.unmount()
  })
})

describe('re-planning', () => {
  it('asks as soon as something has happened, and holds what shall stay', async () => {
    const revision = {
      version: 3, sentence: 'One lesson moves.', provenFewest: true, before: plan.lessons, after: plan.lessons, room: [],
      moves: [{ skill: 'a', short: 'Say to ten', strand: 'count', number: 2, was: '2026-12-01', is: '2026-12-03', why: 'Snow.' }],
    } // prettier-ignore
    answer('POST', '/api/classes/{classId}/plan/revision', revision)
    const { wrapper: page } = await openPage((await import('./RevisePage.vue')).default, '/c/1/revise-plan')
    expect(calls.some((c) => c.method === 'POST')).toBe(false)
    await page.get('input[aria-label="First lost day"]').setValue('28/11/2026')
    await page.find('input[aria-label="What the days were lost to"]').setValue('Snow')
    await page.find('form').trigger('submit')
    await flushPromises()
    expect(page.get('.wrong em').text()).toBe('There is no school on these days.')
    expect(page.get('input[aria-label="First lost day"]').attributes('aria-invalid')).toBe('true')
    await page.get('input[aria-label="First lost day"]').setValue('27/11/2026')
    await page.get('input[aria-label="Last lost day"]').setValue('01/12/2026')
    await page.find('input[aria-label="What the days were lost to"]').setValue('Snow')
    await page.find('form').trigger('submit')
    await flushPromises()
    const posts = () => calls.filter((c) => c.method === 'POST').map((c) => c.body)
    expect(posts()[0]).toMatchObject({ lostDays: ['2026-11-27', '2026-11-30', '2026-12-01'], why: 'Snow' })
    expect(page.text()).toContain('One lesson moves.')
    await page.find('.moves input[type=checkbox]').trigger('change')
    await flushPromises()
    expect(posts()[1]).toMatchObject({ held: [{ skill: 'a', number: 2 }] })
    await page
      .findAll('button')
      .find((b) => b.text() === 'Take it')!
      .trigger('click')
    await flushPromises()
    expect(calls.find((c) => c.path.endsWith('/accept'))?.body).toMatchObject({ version: 3 })
    page.unmount()
  })
})
