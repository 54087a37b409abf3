import { describe, expect, it, vi } from 'vitest'
import { h } from 'vue'
import { answer, calls, fakeApi, openPage } from '@/testing/page'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))
vi.mock('primevue/drawer', () => ({
  default: (_: object, { slots }: { slots: { default(): [] } }) => h('div', slots.default()),
}))
const { default: CellDrawer } = await import('./CellDrawer.vue')

describe('a skill that is inferred', () => {
  it('says from what, and is settled with one tap', async () => {
    answer('GET', '/api/classes/{classId}/children/{childId}/skills/{skillId}', {
      child: 'Isla D.', skill: 'Touch each to ten', iCan: 'I can.', strength: 0, lookAgain: false, inferred: true, belief: 0.9,
      sentence: 'Not seen yet. It follows from “how many to ten”, seen twice alone: a guess to confirm.', ready: '',
      clauses: [], steps: [], lookFor: [], shownIn: 'Objects', seen: [],
    }) // prettier-ignore
    const { wrapper } = await openPage(CellDrawer, '/c/1/class', { childId: 3, skillId: 'count.touch-10' })
    expect(wrapper.text()).toContain('It follows from “how many to ten”')
    await wrapper.findAll('.settle button')[1]!.trigger('click')
    expect(calls.find((c) => c.method === 'POST')?.body).toMatchObject({
      childId: 3,
      skill: 'count.touch-10',
      support: 'NotYet',
      representation: 'Objects',
    })
  })
})
