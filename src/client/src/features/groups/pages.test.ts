import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { answer, calls, fakeApi, openPage } from '@/testing/page'

vi.mock('@/app/api/client', () => ({
  api: fakeApi,
  take: async (asked: Promise<{ data: unknown }>) => (await asked).data,
}))

const { default: GroupsPage } = await import('./GroupsPage.vue')
const { default: AfterPage } = await import('./AfterPage.vue')
const { default: CompanyPage } = await import('./CompanyPage.vue')
const { default: WeightSliders } = await import('./WeightSliders.vue')
const { default: MetPicture } = await import('./MetPicture.vue')
const { default: SetsBar } = await import('./SetsBar.vue')

const week = '/api/classes/{classId}/weeks/{day}/groups'
const group = (slotId: number, short: string, ...children: [number, string][]): Schemas['GroupView'] => ({
  slot: { slotId, day: '2026-11-24', start: '09:40:00', minutes: 15, adult: 'Ines Okonjo', where: 'Round table' },
  skill: `skill.${slotId}`,
  short,
  iCan: '',
  activity: '',
  reason: '',
  sessionId: null,
  run: false,
  children: children.map(([id, name]) => ({ id, name, reason: '', strength: null })),
})
const view = (more: Partial<Schemas['GroupsView']> = {}): Schemas['GroupsView'] => ({
  monday: '2026-11-23',
  accepted: false,
  groups: [group(1, 'See to three', [1, 'Kofi M.'], [2, 'Wren A.']), group(2, 'Say to five', [3, 'Gus H.'])],
  unplaced: [{ id: 4, name: 'Isla D.', reason: 'Had a turn.', strength: null }],
  provenBest: true,
  verdict: 'No better set of groups exists for these aims.',
  score: 300,
  changes: [],
  comparedWith: null,
  conflict: [],
  parts: [{ number: 1, name: 'Monday to Friday', from: '2026-11-23', until: '2026-11-27', open: true, again: null }],
  part: null,
  version: '0',
  ...more,
})
const wishes = {
  minSize: 3, maxSize: 5, everyoneOnce: false, mostNearAdult: null, mostAtOnce: null, turnsAWeek: 'AsPlacesAllow', weights: [], steps: [],
  pairs: [], adultWishes: [], timesOut: [], nearAdult: [], adults: [], strands: [], children: [],
} // prettier-ignore
const button = (wrapper: ReturnType<typeof mount>, text: string) =>
  wrapper.findAll('button').find((b) => b.text().startsWith(text))!

async function openBoard(proposal = view()) {
  answer('GET', week, view({ groups: [], unplaced: [], verdict: 'No groups have been accepted for this week yet.' }))
  answer('GET', '/api/classes/{classId}/group-wishes', wishes)
  answer('POST', `${week}/proposal`, proposal)
  answer('POST', `${week}/prices`, [
    { to: 1, price: 12, breaks: [], reason: 'Nearly.' },
    { to: null, price: 90, breaks: [], reason: 'Waits.' },
  ])
  const page = await openPage(GroupsPage, '/c/1/groups/2026-11-24')
  await flushPromises()
  await button(page.wrapper, 'Ask for groups').trigger('click')
  await flushPromises()
  return page.wrapper
}
const lastAsk = () => calls.filter((c) => c.path === `${week}/proposal`).at(-1)!.body as Schemas['GroupsAsk']

const parts = [
  { number: 1, name: 'Monday to Tuesday', from: '2026-11-23', until: '2026-11-24', open: true, again: null },
  { number: 2, name: 'Wednesday to Friday', from: '2026-11-25', until: '2026-11-27', open: true, again: null },
]
const later = (slotId: number, short: string, ...children: [number, string][]) => {
  const made = group(slotId, short, ...children)
  return { ...made, slot: { ...made.slot, day: '2026-11-26' } }
}

describe('a week of two turns', () => {
  it('asks for one part after the other, each beside what lies before it, and accepts both', async () => {
    answer('GET', week, view({ groups: [], unplaced: [], parts }))
    answer('GET', '/api/classes/{classId}/group-wishes', wishes)
    answer('POST', `${week}/proposal`, view({ parts, part: 1 }))
    const { wrapper } = await openPage(GroupsPage, '/c/1/groups/2026-11-24')
    await button(wrapper, 'Ask for groups').trigger('click')
    await flushPromises()
    const asks = calls.filter((c) => c.path === `${week}/proposal`).map((c) => c.body as Schemas['GroupsAsk'])
    expect(asks.map((a) => [a.part, a.beside?.length])).toEqual([
      [1, 0],
      [2, 2],
    ])
    expect(wrapper.findAll('h2').map((h) => h.text())).toEqual(
      expect.arrayContaining(['First turn, Monday to Tuesday', 'Second turn, Wednesday to Friday']),
    )

    // Asked for alone, a part lies beside what is proposed in the other.
    answer('POST', `${week}/proposal`, view({ groups: [later(5, 'See to four', [1, 'Kofi M.'])], parts, part: 2 }))
    await button(wrapper, 'Ask again for Wednesday to Friday only').trigger('click')
    await flushPromises()
    expect([lastAsk().part, lastAsk().beside?.length]).toEqual([2, 2])
    answer('POST', `${week}/accept`, view({ accepted: true, parts }))
    await button(wrapper, 'Accept these groups').trigger('click')
    await flushPromises()
    const taken = calls.find((c) => c.path === `${week}/accept`)!.body as Schemas['AcceptRequest']
    expect(taken.groups.map((g) => g.slotId)).toEqual([1, 2, 5])
    wrapper.unmount()
  })

  it('says that the second half is worth asking for again, and leaves the first as it stands', async () => {
    const again = 'Nine children have been seen since these were accepted.'
    const over = [
      { ...parts[0]!, open: false },
      { ...parts[1]!, again },
    ]
    const stands = [{ ...group(1, 'See to three', [1, 'Kofi M.']), run: true }, later(5, 'See to four', [2, 'Wren A.'])]
    answer('GET', week, view({ accepted: true, groups: stands, unplaced: [], parts: over }))
    answer('GET', '/api/classes/{classId}/group-wishes', wishes)
    answer(
      'POST',
      `${week}/proposal`,
      view({ groups: [later(5, 'Say to five', [2, 'Wren A.'])], parts: over, part: 2 }),
    )
    const { wrapper } = await openPage(GroupsPage, '/c/1/groups/2026-11-24')
    expect(wrapper.get('.again').text()).toBe(again)
    await button(wrapper, 'Ask again').trigger('click')
    await flushPromises()
    expect(calls.filter((c) => c.path === `${week}/proposal`)).toHaveLength(1)
    expect([lastAsk().part, lastAsk().beside]).toEqual([2, null])
    expect(wrapper.text()).toContain('See to three')
    wrapper.unmount()
  })
})

describe('the board', () => {
  it('prices a move before it is made, pegs it down, and asks again around it', async () => {
    const wrapper = await openBoard()
    expect(wrapper.text()).toContain('No better set of groups exists')
    await button(wrapper, 'Kofi M.').trigger('click')
    await flushPromises()
    expect(wrapper.findAll('.price')).toHaveLength(1)
    await button(wrapper, 'Put Kofi M. here').trigger('click')
    expect(wrapper.text()).toContain('Changed by hand.')
    expect(wrapper.text()).toContain('One thing is pegged down')
    await button(wrapper, 'Keep the aim').trigger('click')
    await button(wrapper, 'Ask again').trigger('click')
    await flushPromises()
    expect(lastAsk().seats).toEqual([{ childId: 1, slotId: 2, day: '2026-11-24' }])
    expect(lastAsk().aims).toEqual([{ skill: 'skill.1', slotId: 1, day: '2026-11-24' }])
    await button(wrapper, 'Take the pegs out').trigger('click')
    await button(wrapper, 'Has to have a turn').trigger('click')
    await flushPromises()
    expect([lastAsk().seats, lastAsk().turns]).toEqual([[], [4]])
    wrapper.unmount()
  })

  it('names wishes that can’t hold together, and asks again without the one that is let go of', async () => {
    const conflict = [
      {
        key: 'apart-1-2',
        sentence: 'Kofi M. and Wren A. are to be kept apart.',
        childId: null,
        slotId: null,
        day: null,
      },
    ]
    const wrapper = await openBoard(view({ groups: [], conflict, verdict: 'One wish can’t be kept.' }))
    expect(wrapper.get('.conflict').text()).toContain('are to be kept apart.')
    answer('POST', `${week}/proposal`, view())
    await button(wrapper, 'Let go of this one').trigger('click')
    await flushPromises()
    expect(lastAsk().letGo).toEqual(['apart-1-2'])
    expect(wrapper.text()).toContain('Does not count this time: Kofi M. and Wren A.')
    await button(wrapper, 'Let it count again').trigger('click')
    await flushPromises()
    expect(lastAsk().letGo).toEqual([])
    wrapper.unmount()
  })

  it('lays other sets beside it, and what would be if a child were away', async () => {
    const wrapper = await openBoard()
    const other = view({ score: 280, groups: [group(1, 'See to three', [2, 'Wren A.'])] })
    answer('POST', `${week}/others`, { sets: [other], sentence: null })
    await button(wrapper, 'Other good sets').trigger('click')
    await flushPromises()
    expect(wrapper.findAll('.set').map((s) => s.text())).toEqual(['Best 300 points', 'Other 1 280 points'])
    answer('POST', `${week}/proposal`, other)
    await button(wrapper, 'Kofi M.').trigger('click')
    await flushPromises()
    await button(wrapper, 'What if Kofi M. is away?').trigger('click')
    await flushPromises()
    expect(lastAsk().without).toEqual([1])
    expect(wrapper.get('.set[aria-pressed="true"]').text()).toContain('Without Kofi M.')
    expect(wrapper.get('.differing').text()).toContain('2 children have another aim')
    wrapper.unmount()
  })

  it('goes on looking until the search has ended', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval'] })
    const wrapper = await openBoard(view({ provenBest: false }))
    const job = { id: 'x', state: 'Working', score: 300, bound: 310, groups: null }
    answer('POST', `${week}/better`, job)
    answer('GET', '/api/classes/{classId}/groups/better/{id}', job)
    await button(wrapper, 'Go on looking').trigger('click')
    await flushPromises()
    expect(wrapper.text()).toContain('no set can have more than 310')
    answer('GET', '/api/classes/{classId}/groups/better/{id}', {
      ...job,
      state: 'Done',
      score: 306,
      groups: view({ score: 306, verdict: 'Better now.' }),
    })
    await vi.advanceTimersByTimeAsync(600)
    await flushPromises()
    expect(wrapper.text()).toContain('Better now.')
    wrapper.unmount()
    vi.useRealTimers()
  })
})

it('compares two sets child by child', async () => {
  const sets = [
    { name: 'Best', view: view() },
    { name: 'Other 1', view: view({ score: 290, groups: [group(1, 'Say to five', [1, 'Kofi M.'])] }) },
  ]
  const wrapper = mount(SetsBar, { props: { sets, busy: false, canAsk: true, modelValue: 0, compared: 1 } })
  expect(wrapper.findAll('tbody tr').map((r) => r.text())).toEqual([
    'Gus H.Say to fiveno turn',
    'Kofi M.See to threeSay to five',
    'Wren A.See to threeno turn',
  ])
  await wrapper.findAll('.set')[1]!.trigger('click')
  expect(wrapper.emitted('update:modelValue')).toEqual([[1]])
  expect(wrapper.emitted('update:compared')).toEqual([[undefined]])
})

it('says in words how much a weight counts, and sets all of them at once', async () => {
  const weights = [
    { key: 'near', name: 'Nearly there', does: 'Higher: …', percent: 100 },
    { key: 'company', name: 'New company', does: 'Higher: …', percent: 0 },
  ]
  const wrapper = mount(WeightSliders, { props: { weights, steps: [0, 50, 100, 200, 400] } })
  const [near, company] = wrapper.findAll('input')
  expect([near, company].map((i) => i!.attributes('aria-valuetext'))).toEqual(['as usual', 'not at all'])
  ;(near!.element as HTMLInputElement).value = '4'
  await near!.trigger('change')
  expect(wrapper.emitted('set')).toEqual([[{ near: 400, company: 0 }]])
})

describe('looking back', () => {
  it('shows strength before and after, what is reached, who was away', async () => {
    const child = { before: 2, after: 3, now: 4, reached: true, carriedOver: false, recorded: true, away: false }
    answer('GET', '/api/classes/{classId}/groups/after', {
      from: '', until: '', sentence: 'One group.',
      weeks: [{ monday: '2026-11-16', groups: [{ sessionId: 7, day: '2026-11-17', adult: 'Ines Okonjo', skill: 'x', short: 'Say to ten', sentence: 'Kofi M. is secure now.',
        children: [{ ...child, id: 1, name: 'Kofi M.' }, { ...child, id: 2, name: 'Wren A.', away: true }] }] }],
    }) // prettier-ignore
    const { wrapper } = await openPage(AfterPage, '/c/1/groups-after')
    const rows = wrapper.findAll('tbody tr')
    expect(rows[0]!.findAll('.mark').map((m) => m.attributes('aria-label'))).toEqual([
      'with a prompt',
      'nearly',
      'secure',
    ])
    expect(rows[0]!.text()).toContain('reached')
    expect(rows[1]!.text()).toContain('away')
    wrapper.unmount()
  })

  const children = [
    { id: 1, name: 'Kofi M.', turns: 3, others: 2, last: '2026-11-17', aims: [] },
    { id: 2, name: 'Wren A.', turns: 1, others: 1, last: '2026-11-10', aims: [] },
    { id: 3, name: 'Gus H.', turns: 0, others: 0, last: null, aims: [] },
  ]
  const met = [{ first: 1, second: 2, times: 2 }]

  it('has who had fewest turns first, and warnings in sentences', async () => {
    answer('GET', '/api/classes/{classId}/groups/company', {
      from: '2026-09-07',
      until: '2026-11-25',
      term: 'Autumn',
      children,
      met,
      warnings: ['Gus H. has not had a turn.'],
    })
    const { wrapper } = await openPage(CompanyPage, '/c/1/groups-company')
    expect(wrapper.findAll('[role=rowheader]').map((t) => t.text())).toEqual(['Gus H.', 'Wren A.', 'Kofi M.'])
    expect(wrapper.get('.warnings').text()).toContain('has not had a turn')
    expect(wrapper.text()).toContain('none yet')
    wrapper.unmount()
  })

  it('draws a knot for each pair that has met, and tells the same as a list', async () => {
    const wrapper = mount(MetPicture, { props: { children, met } })
    expect(wrapper.findAll('.knot').map((k) => k.get('title').text())).toEqual(['Kofi M. and Wren A.: 2 times'])
    expect(wrapper.findAll('li').map((l) => l.text())).toEqual([
      'Kofi M. Wren A. 2',
      'Wren A. Kofi M. 2',
      'Gus H. nobody yet',
    ])
    await wrapper.findAll('text')[2]!.trigger('mouseenter')
    expect(wrapper.get('.knot').classes()).toContain('dim')
  })
})
