import { mount } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import { defineComponent, h, withDirectives } from 'vue'
import { tooltip } from './tooltip'

afterEach(() => (document.body.innerHTML = ''))

const page = defineComponent({
  props: { words: { type: String, default: 'first' } },
  setup: (props) => () =>
    h('div', [
      withDirectives(h('button', { id: 'one' }), [[tooltip, props.words]]),
      withDirectives(h('button', { id: 'two' }), [[tooltip, 'second']]),
      withDirectives(h('button', { id: 'none' }), [[tooltip, '']]),
    ]),
})
const said = () => [...document.querySelectorAll('[role=tooltip]')].map((label) => label.textContent)
const open = () => mount(page, { attachTo: document.body })

describe('a tooltip', () => {
  it('is one label for the page, for what is pointed at', async () => {
    const wrapper = open()
    await wrapper.get('#one').trigger('mouseenter')
    expect(said()).toEqual(['first'])
    await wrapper.get('#two').trigger('mouseenter')
    expect(said()).toEqual(['second'])
    await wrapper.get('#two').trigger('mouseleave')
    expect(said()).toEqual([])
    await wrapper.get('#none').trigger('mouseenter')
    expect(said()).toEqual([])
  })

  it('says what holds now, and goes with Escape and with what it is about', async () => {
    const wrapper = open()
    await wrapper.setProps({ words: 'other' })
    await wrapper.get('#one').trigger('mouseenter')
    expect(said()).toEqual(['other'])
    await wrapper.get('#one').trigger('keydown', { key: 'Escape' })
    expect(said()).toEqual([])
    await wrapper.get('#one').trigger('mouseenter')
    wrapper.unmount()
    expect(said()).toEqual([])
  })

  it('comes by a finger’s tap and stays until something else is touched', async () => {
    const wrapper = open()
    const tap = new Event('click') as Event & { pointerType: string }
    tap.pointerType = 'touch'
    wrapper.get('#one').element.dispatchEvent(tap)
    await new Promise((done) => setTimeout(done, 5))
    expect(said()).toEqual(['first'])
    document.dispatchEvent(new Event('pointerdown'))
    expect(said()).toEqual([])
  })
})
