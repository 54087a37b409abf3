import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, calls, fakeApi, openPage } from '@/testing/page'
import ApproachPage from './ApproachPage.vue'
import { questions, type Choice } from '@/app/questions'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const usual = Object.fromEntries(questions.map((q) => [q.name, q.of[0]!.value])) as unknown as Choice

describe('the page of the class’s approach', () => {
  beforeEach(() =>
    answer('GET', '/api/classes/{classId}/approach', {
      choice: usual,
      six: { width: 5, height: 2, description: 'six', shapes: [] },
      means: [{ question: 'secure', answer: 'Strict', means: 'Right on three days.' }],
    }),
  )

  it('asks every question of the class’s choice once, with the usual answer first', () => {
    expect(new Set(questions.map((q) => q.name)).size).toBe(questions.length)
    expect(questions).toHaveLength(15)
    for (const question of questions) expect(new Set(question.of.map((o) => o.value)).size).toBe(question.of.length)
  })

  it('says what the core says of what an answer means', async () => {
    const { wrapper } = await openPage(ApproachPage, '/c/1/approach')
    await flushPromises()
    expect(wrapper.get('label:has(input[name=secure][value=Strict])').text()).toContain('Right on three days.')
  })

  it('keeps the first of two choices that follow each other before the server has answered', async () => {
    const { wrapper } = await openPage(ApproachPage, '/c/1/approach')
    const choose = (name: string, value: string) => wrapper.get(`input[name=${name}][value=${value}]`).trigger('change')
    void choose('fewerWord', 'Less')
    void choose('symbols', 'FromTheStart')
    await flushPromises()
    const sent = calls.filter((c) => c.method === 'PATCH').map((c) => c.body as Partial<Choice>)
    expect(sent).toEqual([{ fewerWord: 'Less' }, { symbols: 'FromTheStart' }])
  })
})
