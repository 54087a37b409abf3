import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, nextTick, ref } from 'vue'
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
const { default: NumberField } = await import('./NumberField.vue')
const { default: AskForm } = await import('./AskForm.vue')

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

describe('A number', () => {
  const shown = (props: object) => mount(NumberField, { props, global: { plugins: [prime] } })

  it('is handed out when the field is left, within its bounds, and only where it has changed', async () => {
    const field = shown({ modelValue: 4, min: 2, max: 6, label: 'From' })
    const input = field.get('input')
    expect(input.attributes('aria-label')).toBe('From')
    await input.trigger('blur')
    expect(field.emitted('update:modelValue')).toBeUndefined()
    await input.setValue('9')
    await input.trigger('blur')
    expect(field.emitted('update:modelValue')).toEqual([[6]])
  })

  it('may be nothing, which is no change where it was nothing before', async () => {
    const field = shown({ label: 'At most' })
    await field.get('input').trigger('blur')
    expect(field.emitted('update:modelValue')).toBeUndefined()
  })
})

describe('A form', () => {
  const mail = ref('')
  const asked = (send: () => Promise<unknown>) =>
    mount(
      defineComponent({
        components: { AskForm, FaultyField },
        setup: () => ({ mail, send }),
        template: `<AskForm :send="send">
          <FaultyField name="fullName" label="Name"><input class="name" value="Ines" /></FaultyField>
          <FaultyField name="email"><input v-model="mail" class="mail" type="email" required /></FaultyField>
          <button>Add</button></AskForm>`,
      }),
      { attachTo: document.body },
    )
  const submit = async (form: VueWrapper) => {
    await nextTick()
    await form.get('form').trigger('submit')
    await flushPromises()
  }

  it('says at the field what is missing there, before anything is sent', async () => {
    mail.value = ''
    const send = vi.fn(() => Promise.resolve())
    const form = asked(send)
    await submit(form)
    expect(send).not.toHaveBeenCalled()
    expect((form.get('.name').element as HTMLInputElement).labels?.[0]?.textContent).toBe('Name')
    expect(form.get('em').text()).toBe('This is still missing.')
    const field = form.get('.mail')
    expect(document.activeElement).toBe(field.element)
    expect(field.attributes('aria-invalid')).toBe('true')
    expect(form.get(`#${field.attributes('aria-describedby')}`).text()).toBe('This is still missing.')
    mail.value = 'ines@school.example'
    await submit(form)
    expect(send).toHaveBeenCalledOnce()
    expect(form.find('em').exists()).toBe(false)
    expect(field.attributes('aria-invalid')).toBeUndefined()
  })

  it('puts what the server refuses at its field, and what belongs to none at the end', async () => {
    mail.value = 'ines@school.example'
    const form = asked(() =>
      Promise.reject(
        new Refused('Two things.', 400, {
          email: ['An adult with this e-mail is there already.'],
          terms: ['The terms overlap.'],
        }),
      ),
    )
    await submit(form)
    expect(form.findAll('em').map((e) => e.text())).toEqual(['An adult with this e-mail is there already.'])
    expect(form.get('.rest').text()).toBe('The terms overlap.')
    expect(document.activeElement).toBe(form.get('.mail').element)
    expect(notices.value).toEqual([])
  })

  it('sends once, however often it is tapped', async () => {
    mail.value = 'ines@school.example'
    let done = () => {}
    const send = vi.fn(() => new Promise<void>((go) => (done = go)))
    const form = asked(send)
    await submit(form)
    await submit(form)
    expect(send).toHaveBeenCalledOnce()
    done()
    await flushPromises()
    await submit(form)
    expect(send).toHaveBeenCalledTimes(2)
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
