import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import ShareBars from './ShareBars.vue'

describe('bars of shares', () => {
  const rows = [
    { label: '3 + 3', share: 0.3125, note: 'once in 3' },
    { label: '6 + 0', share: 0.015625, note: 'once in 64' },
    { label: '12 + 0', share: 0.0003125 },
  ]
  const bars = mount(ShareBars, { props: { rows, caption: 'Splits' } })

  it('are as long as they are likely, the likeliest as long as there is room', () =>
    expect(bars.findAll('i').map((i) => (i.element as HTMLElement).style.width)).toEqual(['100%', '5%', '0.1%']))

  it('say their share, as finely as it matters', () =>
    expect(bars.findAll('.share').map((s) => s.text())).toEqual(['31 %', '1.6 %', 'under 0.1 %']))

  it('are a table with a caption, for those who hear it', () => {
    expect(bars.get('caption').text()).toBe('Splits')
    expect(bars.findAll('th').map((t) => t.text())).toEqual(['3 + 3', '6 + 0', '12 + 0'])
    expect(bars.text()).toContain('once in 64')
  })
})
