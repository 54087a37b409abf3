import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, calls, fakeApi, openPage } from '@/testing/page'
import LibraryPage from './LibraryPage.vue'
import { span } from './places'
import Select from 'primevue/select'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))

const lid = {
  id: 'under-the-lid',
  name: 'Under the lid',
  purpose: 'Know the hidden part.',
  places: ['Carpet', 'Group'],
  least: 2,
  most: 5,
  minutes: 10,
  skillId: 'bond.all-7',
  skill: 'Ways to make six, seven',
  numbers: '6-7',
  skills: 6,
  prints: false,
  short: null,
  own: false,
}
const library = {
  found: [lid, { ...lid, id: 'own-hat', name: 'Under the hat', own: true, short: '1 cloths short' }],
  all: 102,
  skills: [{ id: 'bond.all-7', strand: 'Parts and wholes', short: 'Ways to make six, seven' }],
  items: [{ id: 'ten-frames', name: 'Ten frames' }],
}

describe('the library', () => {
  beforeEach(() => answer('GET', '/api/classes/{classId}/activities', library))
  const lastAsked = () => calls.filter((c) => c.path.endsWith('/activities')).at(-1)!.params.query

  it('asks what stands in the address', async () => {
    const { wrapper } = await openPage(LibraryPage, '/c/1/activities?text=hidden+part+to+7&minutes=10&onlyOwned=1')
    expect(lastAsked()).toMatchObject({ text: 'hidden part to 7', minutes: 10, onlyOwned: true })
    expect((wrapper.get('.words').element as HTMLInputElement).value).toBe('hidden part to 7')
  })

  it('sorts all that were found, not only those that are shown, and what answers best comes back', async () => {
    const found = Array.from({ length: 30 }, (_, i) => ({
      ...lid,
      id: `a${i}`,
      name: `Activity ${i}`,
      minutes: 40 - i,
    }))
    answer('GET', '/api/classes/{classId}/activities', { ...library, found })
    const { wrapper } = await openPage(LibraryPage, '/c/1/activities')
    const first = () => wrapper.find('.found tbody tr b').text()
    const sort = async (column: string) => {
      const head = wrapper.findAll('.found th').find((h) => h.text().startsWith(column))!
      await head.trigger('click')
      await flushPromises()
    }
    await sort('Minutes')
    expect(first()).toBe('Activity 29')
    await sort('Minutes')
    expect(first()).toBe('Activity 0')
    await sort('Minutes')
    expect(first()).toBe('Activity 0')
    await sort('Activity')
    expect(wrapper.findAll('.found tbody tr b').map((b) => b.text()).slice(0, 3)).toEqual(['Activity 0', 'Activity 1', 'Activity 10']) // prettier-ignore
    expect(wrapper.findAll('.found tbody tr')).toHaveLength(12)
  })

  it('puts each part of the question into the address, and takes it out again', async () => {
    const { wrapper, router } = await openPage(LibraryPage, '/c/1/activities')
    const without = () =>
      wrapper
        .findAllComponents<typeof Select>({ name: 'Select' })
        .find((s) => s.attributes('aria-label') === 'Without' || s.html().includes('aria-label="Without"'))!
    await wrapper.get('[aria-label="Number of children"]').setValue('4')
    await wrapper.get('[aria-label="Number of children"]').trigger('blur')
    await flushPromises()
    without().vm.$emit('update:modelValue', 'ten-frames')
    await flushPromises()
    expect(router.currentRoute.value.query).toEqual({ children: '4', without: 'ten-frames' })
    expect(lastAsked()).toMatchObject({ children: 4, without: 'ten-frames' })
    without().vm.$emit('update:modelValue', '')
    await flushPromises()
    expect(router.currentRoute.value.query).toEqual({ children: '4' })
  })

  it('says what is short and what is our own, and opens an activity for the skill it was found by', async () => {
    const { wrapper } = await openPage(LibraryPage, '/c/1/activities?children=4')
    const rows = wrapper.findAll('.found tbody tr')
    expect(rows[1]!.text()).toContain('our own')
    expect(rows[1]!.text()).toContain('1 cloths short')
    expect(rows[0]!.get('a').attributes('href')).toBe('/c/1/activities/under-the-lid?skill=bond.all-7&children=4')
    expect(wrapper.text()).toContain('2 of 102 activities')
  })

  it('helps on when nothing answers', async () => {
    answer('GET', '/api/classes/{classId}/activities', { ...library, found: [] })
    const { wrapper } = await openPage(LibraryPage, '/c/1/activities?text=trombone')
    expect(wrapper.text()).toContain('Leave out the minutes first')
  })

  it('writes spans as a teacher would', () => {
    expect(span(2, 5)).toBe('2–5')
    expect(span(3, 3)).toBe('3')
  })
})
