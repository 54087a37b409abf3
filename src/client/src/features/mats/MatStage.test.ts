import { mount, type VueWrapper } from '@vue/test-utils'
import { nextTick, reactive } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import MatStage from './MatStage.vue'

const route = reactive<{ query: Record<string, string> }>({ query: {} })
vi.mock('vue-router', () => ({
  useRoute: () => route,
  useRouter: () => ({ replace: (to: { query: Record<string, string> }) => (route.query = to.query) }),
}))

let wrapper: VueWrapper | undefined
const stage = (props: Record<string, unknown> = {}) =>
  (wrapper = mount(MatStage, {
    props,
    slots: { default: '<svg class="fill" />', under: 'Eight and two make ten.', run: '<input class="field">' },
    attachTo: document.body,
  }))
const press = async (key: string, more: KeyboardEventInit = {}) => {
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }))
  await nextTick()
}
const button = (name: string) => wrapper!.findAll('button').find((b) => b.text().startsWith(name))

describe('the stage of a mat', () => {
  beforeEach(() => {
    route.query = {}
    vi.useFakeTimers()
  })
  afterEach(() => {
    wrapper?.unmount()
    vi.useRealTimers()
  })

  it('steps by buttons and by arrows, and says where it stands', async () => {
    stage({ steps: { at: 1, last: 3 } })
    expect(wrapper!.text()).toContain('step 2 of 4')
    await press('ArrowRight')
    await press('ArrowLeft')
    await button('On')!.trigger('click')
    expect(wrapper!.emitted('on')).toHaveLength(2)
    expect(wrapper!.emitted('back')).toHaveLength(1)
  })

  it('does not step where there is nothing to step through, and never while a field is typed in', async () => {
    stage()
    await press('ArrowRight')
    expect(wrapper!.emitted('on')).toBeUndefined()
    await wrapper!.setProps({ steps: { at: 0, last: 2 } })
    wrapper!.get('.field').element.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }))
    await press('ArrowRight', { ctrlKey: true })
    expect(wrapper!.emitted('on')).toBeUndefined()
  })

  it('hands on the keys of its mat and no others', async () => {
    stage({ keys: { z: 'undo' } })
    await press('z')
    await press('q')
    expect(wrapper!.emitted('key')).toEqual([['z']])
  })

  it('fills the screen with only the picture, what is said, and four corners; the address says so', async () => {
    stage({ steps: { at: 0, last: 2 }, flash: 2 })
    await button('On the board')!.trigger('click')
    expect(route.query).toEqual({ board: '1' })
    await nextTick()
    expect(wrapper!.find('.run').exists()).toBe(false)
    expect(wrapper!.findAll('.corner').map((c) => c.text())).toEqual(['Flash', 'Leave', 'Back', 'On'])
    expect(wrapper!.findAll('.corner')[2]!.attributes('disabled')).toBeDefined()
    await press('Escape')
    expect(route.query).toEqual({})
  })

  it('flashes for its seconds, then hides the picture and what is said until it is opened', async () => {
    stage({ flash: 1.5 })
    await press('e')
    expect(wrapper!.get('[role=status]').text()).toBe('Eyes up')
    vi.advanceTimersByTime(900)
    await nextTick()
    expect(wrapper!.get('.lies').isVisible()).toBe(true)
    expect(wrapper!.get('.under').isVisible()).toBe(false)
    vi.advanceTimersByTime(1500)
    await nextTick()
    expect(wrapper!.get('[role=status]').text()).toBe('What did you see?')
    await press('c')
    expect(wrapper!.get('.under').isVisible()).toBe(true)
  })

  it('shows its keys when asked, with those of the mat among them', async () => {
    stage({ flash: 1, keys: { z: 'undo' } })
    await press('?')
    expect(wrapper!.get('.keys').text()).toMatch(/e.*flash.*z.*undo.*board on or off/s)
    await press('Escape')
    expect(wrapper!.find('.keys').exists()).toBe(false)
  })
})
