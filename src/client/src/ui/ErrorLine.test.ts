import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import ErrorLine from './ErrorLine.vue'

describe('a line of errors', () => {
  const line = mount(ErrorLine, { props: { errors: [-0.5, null, 0, 1.6] } })

  it('has a dot for each guess: below for too few, on the line when exact, at the edge when far off', () => {
    const heights = line.findAll('circle').map((c) => Number(c.attributes('cy')))
    expect(heights).toHaveLength(3)
    expect(heights[0]!).toBeGreaterThan(20)
    expect(heights[1]!).toBe(20)
    expect(heights[2]!).toBe(5)
    expect(line.findAll('.far')).toHaveLength(1)
  })

  it('says the same in words', () =>
    expect(line.get('svg').attributes('aria-label')).toBe('50 % too few, no guess, exact, 160 % too many'))
})
