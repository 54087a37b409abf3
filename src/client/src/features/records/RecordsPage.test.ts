import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { answer, calls, fakeApi, openPage } from '@/testing/page'

vi.mock('@/app/api/client', async (original) => ({ ...(await original<object>()), api: fakeApi }))
const { default: RecordsPage } = await import('./RecordsPage.vue')

const preview = (more: object = {}) => ({
  new: 12, known: 3, children: 4, first: '2026-11-02', last: '2026-11-20', faults: [], notes: [], canBeTaken: true, ...more,
}) // prettier-ignore
const child = (more: object = {}) => ({
  name: 'Kofi Mensah', fromSchool: 'Quay School', fromClass: 'Elm', made: '2026-11-20', new: 40, known: 0, unknownSkills: 2,
  joinsChildId: null, faults: [], canBeTaken: true, ...more,
}) // prettier-ignore

async function open(input: number, file: File) {
  const page = await openPage(RecordsPage, '/c/1/class/records')
  const field = page.wrapper.findAll<HTMLInputElement>('input[type="file"]')[input]!
  Object.defineProperty(field.element, 'files', { value: [file] })
  await field.trigger('change')
  await flushPromises()
  return page
}
const button = (page: Awaited<ReturnType<typeof open>>, name: string) =>
  page.wrapper.findAll('button').find((b) => b.text() === name)

describe('the record in and out', () => {
  it('shows what a list of observations would bring before it is taken', async () => {
    answer('POST', '/api/classes/{classId}/records/csv/preview', preview())
    answer('POST', '/api/classes/{classId}/records/csv', preview())
    const page = await open(0, new File(['x'], 'seen.csv'))
    expect(page.wrapper.text()).toContain('12 new of 4 children, from 2 November to 20 November')
    expect(page.wrapper.text()).toContain('3 are here already and stay as they are')
    expect(calls.some((c) => c.path.endsWith('/csv'))).toBe(false)
    await button(page, 'Take them')!.trigger('click')
    await flushPromises()
    expect(calls.some((c) => c.path.endsWith('/csv'))).toBe(true)
    expect(button(page, 'Take them')).toBeUndefined()
  })

  it('says how far a long list is, asks for that under its own name, and stops asking when it is in', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] })
    let tell: (seen: object) => void = () => undefined
    answer('POST', '/api/classes/{classId}/records/csv/preview', () => new Promise((told) => (tell = told)))
    answer('GET', '/api/classes/{classId}/records/imports/{id}', { share: 0.42 })
    const page = await open(0, new File(['x'], 'seen.csv'))
    expect(page.wrapper.get('[role="progressbar"]').attributes('aria-valuenow')).toBe('0')
    const asked = () => calls.filter((c) => c.path.endsWith('/imports/{id}'))
    await vi.advanceTimersByTimeAsync(600)
    await flushPromises()
    expect(page.wrapper.get('[role="progressbar"]').attributes('aria-valuenow')).toBe('42')
    expect(page.wrapper.text()).toContain('Reading the list …')
    const sent = calls.find((c) => c.path.endsWith('/csv/preview'))!
    expect(asked()[0]!.params.path).toEqual({ classId: 1, id: sent.params.query!.import })

    // What is told late never takes it back.
    answer('GET', '/api/classes/{classId}/records/imports/{id}', { share: 0.2 })
    await vi.advanceTimersByTimeAsync(600)
    expect(page.wrapper.get('[role="progressbar"]').attributes('aria-valuenow')).toBe('42')
    tell(preview())
    await flushPromises()
    expect(page.wrapper.find('[role="progressbar"]').exists()).toBe(false)
    const times = asked().length
    await vi.advanceTimersByTimeAsync(3000)
    expect(asked().length).toBe(times)
    vi.useRealTimers()
  })

  it('names every fault by line and column, and offers nothing to take', async () => {
    const faults = [{ row: 7, column: 'Support', reason: '“Maybe” is none of Alone, …' }]
    answer('POST', '/api/classes/{classId}/records/csv/preview', preview({ faults, canBeTaken: false }))
    const page = await open(0, new File(['x'], 'seen.csv'))
    expect(page.wrapper.get('[role="alert"]').text()).toContain('Line 7, Support: “Maybe” is none of')
    expect(button(page, 'Take them')).toBeUndefined()
  })

  it('takes a child in and goes to its page', async () => {
    answer('POST', '/api/classes/{classId}/child-file/preview', child())
    answer('POST', '/api/classes/{classId}/child-file', { childId: 31 })
    const page = await open(1, new File(['{}'], 'kofi.json'))
    expect(page.wrapper.text()).toContain('Kofi Mensah, from Elm, Quay School: 40 observations')
    expect(page.wrapper.text()).toContain('The child is added to the class.')
    expect(page.wrapper.text()).toContain('2 skills are not on this school’s map')
    await button(page, 'Take the child in')!.trigger('click')
    await flushPromises()
    expect(page.router.currentRoute.value.fullPath).toBe('/c/1/class/children/31')
  })

  it('says why a child’s file can not be taken', async () => {
    answer(
      'POST',
      '/api/classes/{classId}/child-file/preview',
      child({ faults: ['It is damaged.'], canBeTaken: false }),
    )
    const page = await open(1, new File(['{'], 'kofi.json'))
    expect(page.wrapper.get('[role="alert"]').text()).toBe('It is damaged.')
    expect(button(page, 'Take the child in')).toBeUndefined()
  })

  it('puts the days that were chosen into the addresses', async () => {
    const { wrapper } = await openPage(RecordsPage, '/c/1/class/records')
    await wrapper.get('input[aria-label="From"]').setValue('01/09/2026')
    const files = wrapper.findAll('a[download]').map((a) => a.attributes('href'))
    expect(files).toEqual([
      '/api/classes/1/records/csv?from=2026-09-01',
      '/api/classes/1/records/statements?from=2026-09-01',
    ])
  })
})
