import { flushPromises } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { answer, fakeApi, openPage } from '@/testing/page'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))
const { default: DayField } = await import('./DayField.vue')
const { default: TimeField } = await import('./TimeField.vue')
const { default: FileField } = await import('./FileField.vue')
const { dayOrder, schoolIsAt, weekBegins } = await import('@/app/dates')

afterEach(() => {
  schoolIsAt('en-GB', 'UTC')
  document.body.innerHTML = ''
})

/** A field on a page, with what it holds. */
async function field(part: typeof DayField | typeof TimeField, first: string) {
  const value = ref(first)
  const page = defineComponent(
    () => () =>
      h(part, { label: 'Which', modelValue: value.value, 'onUpdate:modelValue': (v: string) => (value.value = v) }),
  )
  const { wrapper } = await openPage(page, '/c/1/set-up')
  return { input: wrapper.get<HTMLInputElement>('input'), value }
}

describe('a day', () => {
  it.each([
    ['en-GB', '25/11/2026', 1],
    ['en-US', '11/25/2026', 0],
    ['en-CA', '2026-11-25', 0],
    ['en-IE', '25/11/2026', 1],
    ['en-NZ', '25/11/2026', 1],
  ])('is written and read in the order of %s', async (locale, written, first) => {
    schoolIsAt(locale, 'UTC')
    const { input, value } = await field(DayField, '2026-11-25')
    expect(input.element.value).toBe(written)
    expect(weekBegins()).toBe(first)
    await input.setValue(written.replace('25', '26'))
    expect(value.value).toBe('2026-11-26')
  })

  it('is empty where there is none, and again once it is cleared', async () => {
    const { input, value } = await field(DayField, '')
    expect(input.element.value).toBe('')
    await input.setValue('03/02/2027')
    expect(value.value).toBe('2027-02-03')
    await input.setValue('')
    expect(value.value).toBe('')
  })

  it('shows days without school and the school’s own today', async () => {
    answer('GET', '/api/classes/{classId}/timetable', {
      closures: [{ kind: 'Closed', first: '2026-11-10', last: '2026-11-11' }],
    })
    const { input } = await field(DayField, '2026-11-20')
    await input.trigger('focus')
    await flushPromises()
    const marked = (mark: string) =>
      [...document.querySelectorAll(`.p-datepicker-day .${mark}`)].map((e) => e.textContent)
    expect(marked('closed')).toEqual(['10', '11'])
    expect(dayOrder()).toBe('dd/mm/yy')
  })
})

describe('a time', () => {
  it('is by the clock of twenty-four hours', async () => {
    const { input, value } = await field(TimeField, '09:30')
    expect(input.element.value).toBe('09:30')
    await input.setValue('14:05')
    expect(value.value).toBe('14:05')
    await input.setValue('9.15')
    expect(value.value).toBe('09:15')
    await input.setValue('24:10')
    expect(value.value).toBe('09:15')
  })
})

describe('a file', () => {
  it('is handed on, with its name, and not sent', async () => {
    const got: File[] = []
    const page = defineComponent(
      () => () => h(FileField, { label: 'A list', accept: '.csv', onFile: (f: File) => got.push(f) }),
    )
    const { wrapper } = await openPage(page, '/c/1/set-up')
    const input = wrapper.get<HTMLInputElement>('input[type="file"]')
    const choose = async (name: string) => {
      Object.defineProperty(input.element, 'files', { value: [new File(['a'], name)], configurable: true })
      await input.trigger('change')
      await flushPromises()
    }
    await choose('first.csv')
    await choose('list.csv')
    // The same file once more, as after it was put right.
    await choose('list.csv')
    expect(got.map((f) => f.name)).toEqual(['first.csv', 'list.csv', 'list.csv'])
    expect(wrapper.text()).toContain('list.csv')
  })

  it('shows where a file can be dropped, where there is something to say about it', async () => {
    const page = (hint: string) => defineComponent(() => () => h(FileField, { label: 'A list', accept: '.csv', hint }))
    const { wrapper } = await openPage(page('Columns: Child'), '/c/1/set-up')
    expect(wrapper.get('.file-field').classes()).toContain('roomy')
    const bare = await openPage(page(''), '/c/1/set-up')
    expect(bare.wrapper.get('.file-field').classes()).not.toContain('roomy')
  })
})
