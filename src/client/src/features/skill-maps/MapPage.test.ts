import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, calls, fakeApi, openPage } from '@/testing/page'
import MapPage from './MapPage.vue'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const skill = (id: string, needs: string[] = [], more: object = {}) => ({
  id,
  strand: id.split('.')[0]!,
  short: id,
  when: 'Autumn',
  needs,
  hidden: false,
  own: false,
  changed: false,
  strength: 3,
  lookAgain: false,
  has: 13,
  ready: 0,
  inWords: 'Thirteen children have it.',
  ...more,
})
const map = {
  strands: [
    { id: 'count', name: 'Counting' },
    { id: 'see', name: 'Seeing' },
  ],
  skills: [
    skill('count.a', [], { ready: 2 }),
    skill('see.a'),
    skill('count.b', ['count.a']),
    skill('see.b', ['see.a', 'count.b'], { hidden: true }),
  ],
  children: Array.from({ length: 26 }, (_, i) => ({ id: i + 1, name: `Child ${i + 1}` })),
  year: 'reception',
}

describe('the map', () => {
  beforeEach(() => {
    answer('GET', '/api/classes/{classId}/map', map)
    answer('GET', '/api/classes/{classId}/children', map.children)
  })
  const bead = (wrapper: Awaited<ReturnType<typeof openPage>>['wrapper'], id: string) =>
    wrapper.get(`[id="bead-${id}"]`)

  it('fills a bead as far as the class has it, or as far as the child is', async () => {
    const ofClass = await openPage(MapPage, '/c/1/map')
    expect(bead(ofClass.wrapper, 'count.a').attributes('style')).toContain('--fill: 0.5')
    expect(ofClass.wrapper.text()).toContain('after the reception year')
    const ofChild = await openPage(MapPage, '/c/1/map?child=3')
    expect(bead(ofChild.wrapper, 'count.a').attributes('style')).toContain('--fill: 0.6')
    expect(calls.find((c) => c.path.endsWith('/map'))!.params.query).toEqual({ childId: 3 })
  })

  it('says in words what a bead shows', async () => {
    const { wrapper } = await openPage(MapPage, '/c/1/map')
    expect(bead(wrapper, 'count.a').attributes('aria-label')).toBe(
      'count.a. Counting, autumn. Thirteen children have it.',
    )
    expect(bead(wrapper, 'see.b').attributes('aria-label')).toContain('Hidden.')
    expect(wrapper.findAll('.small-bead.ready')).toHaveLength(1)
  })

  it('is one stop for the tab key, and arrows walk along a string and between strings', async () => {
    const { wrapper, router } = await openPage(MapPage, '/c/1/map?skill=count.a')
    expect(wrapper.findAll('.bead').filter((b) => b.attributes('tabindex') === '0')).toHaveLength(1)
    await bead(wrapper, 'count.a').trigger('keydown', { key: 'ArrowRight' })
    await flushPromises()
    expect(router.currentRoute.value.query.skill).toBe('count.b')
    await bead(wrapper, 'count.b').trigger('keydown', { key: 'ArrowDown' })
    await flushPromises()
    expect(String(router.currentRoute.value.query.skill)).toMatch(/^see\./)
    await bead(wrapper, 'see.a').trigger('keydown', { key: 'ArrowLeft' })
    await flushPromises()
    expect(String(router.currentRoute.value.query.skill)).toMatch(/^see\./)
  })

  it('lights what the picked skill needs and what it opens', async () => {
    const { wrapper } = await openPage(MapPage, '/c/1/map?skill=count.b')
    expect(wrapper.findAll('.thread')).toHaveLength(2)
    expect(wrapper.findAll('.bead.near').map((b) => b.text())).toEqual(['count.a', 'see.b'])
  })
})
