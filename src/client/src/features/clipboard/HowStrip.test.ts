import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import HowStrip from './HowStrip.vue'
import type { Marked } from './turns'

const strip = (marked: Partial<Marked> = {}, photos = false) =>
  mount(HowStrip, {
    attachTo: document.body,
    props: {
      photos,
      name: 'Kofi M.',
      marked: { id: 'a', support: 'Prompted', numbers: null, ...marked },
      slips: [{ id: 'six-nine', text: 'Mixes up 6 and 9' }],
      strategies: [{ id: 'saw', text: 'Saw it at once' }],
    },
  })

describe('the strip for how it was done', () => {
  it('adds a slip or a way', async () => {
    const wrapper = strip()
    const [slip, way] = wrapper.findAll('button')
    await slip!.trigger('click')
    await way!.trigger('click')
    expect(wrapper.emitted('amend')).toEqual([[{ slip: 'six-nine' }], [{ strategy: 'saw' }]])
  })
  it('takes one back that is on', async () => {
    const wrapper = strip({ slip: 'six-nine' })
    const slip = wrapper.findAll('button')[0]!
    expect(slip.attributes('aria-pressed')).toBe('true')
    await slip.trigger('click')
    expect(wrapper.emitted('amend')).toEqual([[{ slip: null }]])
  })
  it('takes a note, and says that someone writes so that the tap waits', async () => {
    const wrapper = strip()
    await wrapper.get('button.more').trigger('click')
    expect(wrapper.emitted('writing')).toHaveLength(1)
    await wrapper.get('textarea').setValue(' turned both over ')
    await wrapper.get('form').trigger('submit')
    expect(wrapper.emitted('amend')).toEqual([[{ note: 'turned both over' }]])
    expect(wrapper.find('textarea').exists()).toBe(false)
  })
  it('offers a photo only where the family has agreed', () => {
    expect(strip().find('input[type="file"]').exists()).toBe(false)
    expect(strip({}, true).find('input[type="file"]').exists()).toBe(true)
    expect(strip({ photo: true }, true).text()).toContain('Photo taken')
  })
  it('says for whom and what', () => expect(strip().text()).toContain('Kofi M. prompted'))
})
