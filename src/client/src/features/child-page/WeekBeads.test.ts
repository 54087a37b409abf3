import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import WeekBeads from './WeekBeads.vue'

describe('the string of a child’s year', () => {
  const wrapper = mount(WeekBeads, {
    props: {
      weeks: [
        { monday: '2026-11-09', seen: 0, secured: [] },
        { monday: '2026-11-16', seen: 4, secured: ['Five frame'] },
        { monday: '2026-11-23', seen: 1, secured: [] },
      ],
    },
  })
  it('has a bead for each week, larger the more was seen, and a ring for what became secure', () => {
    const beads = wrapper.findAll('g')
    const radius = (i: number) => Number(beads[i]!.get('circle').attributes('r'))
    expect(beads).toHaveLength(3)
    expect([radius(0) < radius(2), radius(2) < radius(1)]).toEqual([true, true])
    expect(wrapper.findAll('.ring')).toHaveLength(1)
  })
  it('is read out in words', () =>
    expect(wrapper.get('svg').attributes('aria-label')).toContain(
      'Week of 16 November: seen 4 times; secure: Five frame',
    ))
})
