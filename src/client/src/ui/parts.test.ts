import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'

vi.mock('@/app/account', async () => {
  const { ref } = await import('vue')
  return { useAccount: () => ({ classId: ref(1) }) }
})
const { installPrime } = await import('@/app/prime')
const { Refused } = await import('@/app/api/client')
const { default: FaultyField } = await import('./FaultyField.vue')
const { default: LongSelect } = await import('./LongSelect.vue')
const { default: PageError } = await import('./PageError.vue')
const { notices } = await import('./notices')
const { useFaults } = await import('./useFaults')

const prime = { install: installPrime }
const router = createRouter({
  history: createMemoryHistory(),
  routes: [{ path: '/c/:classId/today', name: 'today', component: { template: '<p />' } }],
})
beforeEach(() => (notices.value = []))

describe('One of many', () => {
  const children = [
    { value: '7', label: 'Kofi\u00a0M.' },
    { value: '9', label: 'Wren A.' },
  ]
  const shown = (modelValue: string) =>
    mount(LongSelect<string>, {
      props: { modelValue, label: 'Child', none: 'every child', options: children },
      global: { plugins: [prime] },
    })

  it('says what is chosen, or that nothing is', () => {
    expect(shown('9').text()).toContain('Wren A.')
    expect(shown('').text()).toContain('every child')
    expect(shown('').get('[role=combobox]').attributes('aria-label')).toBe('Child')
  })

  it('looks through names as they are typed, with a space', () => {
    const inner = shown('9').findComponent({ name: 'Select' })
    expect(inner.props('filterFields')).toEqual(['typed'])
    expect(inner.props('options').map((o: { typed: string }) => o.typed)).toContain('Kofi M.')
  })

  it('hands out the value, and nothing for no choice', async () => {
    const select = shown('9')
    const inner = select.findComponent({ name: 'Select' })
    inner.vm.$emit('update:modelValue', '7')
    inner.vm.$emit('update:modelValue', '—')
    await flushPromises()
    expect(select.emitted('update:modelValue')).toEqual([['7'], ['']])
  })
})

describe('What is refused', () => {
  it('stands at its field, and nowhere else', () => {
    const { faults, tell } = useFaults('email')
    tell(new Refused('This is no e-mail address.', 400, { email: ['This is no e-mail address.'] }))
    const field = mount(FaultyField, {
      props: { name: 'email', faults: faults.value },
      slots: { default: '<input />' },
    })
    expect(field.get('[role=alert]').text()).toBe('This is no e-mail address.')
    expect(notices.value).toEqual([])
    expect(
      mount(FaultyField, { props: { name: 'name', faults: faults.value } })
        .find('[role=alert]')
        .exists(),
    ).toBe(false)
  })

  it('is said over the page where the form has no such field, and goes with the next try', () => {
    const { faults, forget, tell } = useFaults('email')
    tell(new Refused('The terms overlap.', 400, { terms: ['The terms overlap.'] }))
    expect(notices.value.map((n) => n.text)).toEqual(['The terms overlap.'])
    forget()
    expect(faults.value).toEqual({})
  })
})

describe('A page that could not be had', () => {
  const told = (error: Error) =>
    mount(PageError, {
      props: { error },
      global: { plugins: [router, [VueQueryPlugin, { queryClient: new QueryClient() }]] },
    })

  it('leads on where it is gone', () => {
    const page = told(new Refused('This is not here.', 404))
    expect(page.get('a').attributes('href')).toBe('/c/1/today')
    expect(page.find('button').exists()).toBe(false)
  })

  it('offers to try again where it may come back', () => {
    expect(told(new Error('No network just now.')).get('button').text()).toBe('Try again')
  })
})
