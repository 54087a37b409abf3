import { describe, expect, it } from 'vitest'
import { marksOf, toggled } from './marks'

describe('marks on a drawing', () => {
  it('go on and off, and stay in order', () => {
    expect(toggled('', 4)).toBe('4')
    expect(toggled('4,10', 7)).toBe('4,7,10')
    expect(toggled('4,7,10', 7)).toBe('4,10')
  })
  it('are none in an empty list', () => expect(marksOf('')).toEqual([]))
})
