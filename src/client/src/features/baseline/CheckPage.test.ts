import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, calls, fakeApi, openPage } from '@/testing/page'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))
const { default: CheckPage } = await import('./CheckPage.vue')

const item = (ask: string, right: string) => ({ key: ask, ask, answer: right, value: 1, difficulty: 1, picture: null })
const skill = (id: string, more: object = {}) => ({
  id, short: `Short ${id}`, strand: 'count', held: true, surePercent: 90, asked: null, override: null, strength: 0, ...more,
}) // prettier-ignore
const check = (more: object = {}) => ({
  id: 5,
  childId: 3,
  child: 'Kofi M.',
  strand: null,
  asked: 2,
  atMost: 30,
  sure: 0.97,
  surePercent: 94,
  mostPercent: 94,
  sureInWords: 'about 94 % sure',
  done: false,
  startedAt: '2026-11-25T08:00:00Z',
  endedAt: null,
  question: {
    skill: 'count.c', short: 'Give up to five', strand: 'count', iCan: 'I can give five.',
    layOut: [{ item: 'Yellow counters', amount: 8 }], items: [item('Give me four', 'four'), item('Give me three', 'three')],
    right: ['Stops at the number'], slips: [{ id: 'goes-on', text: 'Goes on counting' }], shownIn: ['Objects', 'Spoken'], cautions: [],
  }, // prettier-ignore
  answers: [{ id: 'x', skill: 'count.a', short: 'Say to five', support: 'Alone', at: '', by: 'Ines' }],
  reach: [{ strand: 'count', name: 'Counting', held: 2, of: 3, sure: 0.9, sentence: 'Likely up to …' }],
  path: [skill('count.a', { asked: 'Alone' }), skill('count.b'), skill('count.c', { held: false, surePercent: 60 })],
  readyNext: [],
  ...more,
})
const path = '/api/classes/{classId}/baseline/{checkId}'
const open = () => openPage(CheckPage, '/c/1/class/baseline/5')

describe('a baseline check at the table', () => {
  beforeEach(() => answer('GET', path, check()))

  it('says what to lay out, what to ask and what counts as right', async () => {
    const { wrapper } = await open()
    expect(wrapper.text()).toContain('Yellow counters: 8')
    expect(wrapper.get('.say').text()).toBe('Give me four')
    expect(wrapper.text()).toContain('Stops at the number')
    await wrapper
      .findAll('button')
      .find((b) => b.text().startsWith('Not sure?'))!
      .trigger('click')
    expect(wrapper.get('.say').text()).toBe('Give me three')
  })

  it('takes two taps an answer, with a slip if one was seen, and never says it is surer than it is', async () => {
    answer('POST', `${path}/answers`, check({ asked: 3, done: true, question: null }))
    const { wrapper } = await open()
    const next = wrapper.get<HTMLButtonElement>('button.next')
    expect(next.element.disabled).toBe(true)
    await wrapper.get('[role="radio"]:nth-child(4)').trigger('click')
    await wrapper.get('.chip').trigger('click')
    await next.trigger('click')
    await flushPromises()
    const sent = calls.find((c) => c.method === 'POST')!
    expect(sent.body).toMatchObject({ skill: 'count.c', support: 'NotYet', slip: 'goes-on', numbers: 'Give me four' })
    expect(wrapper.text()).toContain('Sure enough')
    expect(wrapper.get('.gauge i').attributes('style')).toContain('94%')
  })

  it('picks a code by its key', async () => {
    const { wrapper } = await open()
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 's', bubbles: true }))
    await flushPromises()
    expect(wrapper.get('[aria-checked="true"]').text()).toBe('Prompted')
  })

  it('lets an adult know better about what was inferred, not about what was asked', async () => {
    answer('PUT', `${path}/skills/{skillId}`, check({ path: [skill('count.b', { override: false, held: false })] }))
    const { wrapper } = await open()
    await wrapper.get('[aria-label^="Short count.a"]').trigger('click')
    expect(wrapper.get('.about').text()).not.toContain('I know')
    await wrapper.get('[aria-label^="Short count.b"]').trigger('click')
    expect(wrapper.get('.about').text()).toContain('likely there, about 90 % sure')
    await wrapper.findAll('.about button')[1]!.trigger('click')
    await flushPromises()
    expect(calls.at(-1)).toMatchObject({
      method: 'PUT',
      body: { has: false },
      params: { path: { skillId: 'count.b' } },
    })
    expect(wrapper.get('.about').text()).toContain('Leave it to the check')
  })

  it('leads on to the next child of the sitting when it has ended', async () => {
    answer('GET', path, check({ endedAt: '2026-11-25T08:10:00Z', question: null, readyNext: ['Count on'] }))
    const { wrapper, router } = await openPage(CheckPage, '/c/1/class/baseline/5?then=6,7')
    expect(wrapper.text()).toContain('Ended on 25 November')
    expect(wrapper.text()).toContain('as a guess to confirm')
    await wrapper
      .findAll('button')
      .find((b) => b.text() === 'On to the next child')!
      .trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.fullPath).toBe('/c/1/class/baseline/6?then=7')
  })
})
