import { describe, expect, it } from 'vitest'
import { addDays, byHalves, clock, fullDay, moment, mondayOf, schoolIsAt } from './dates'

describe('days', () => {
  it('finds the Monday of any day, Sunday belonging to the week before', () => {
    expect(mondayOf('2026-11-25')).toBe('2026-11-23')
    expect(mondayOf('2026-11-23')).toBe('2026-11-23')
    expect(mondayOf('2026-11-29')).toBe('2026-11-23')
  })
  it('adds days over the ends of months and of summer time', () => {
    expect(addDays('2026-10-24', 2)).toBe('2026-10-26')
    expect(addDays('2027-02-28', 1)).toBe('2027-03-01')
    expect(addDays('2026-03-30', -3)).toBe('2026-03-27')
  })
  it('has nothing to say about no day', () => expect([mondayOf(''), addDays('', 1), fullDay('')]).toEqual(['', '', '']))
  it('writes them as people do', () => {
    expect(fullDay('2026-11-25')).toBe('Wednesday 25 November')
    expect(clock('09:40:00')).toBe('9:40')
  })
  it('tells an instant by the school’s clocks and in its way, wherever the tablet is', () => {
    schoolIsAt('en-AU', 'Australia/Sydney')
    expect(moment('2026-11-24T22:15:00Z')).toContain('25')
    expect(moment('2026-11-24T22:15:00Z')).toContain('9:15')
    schoolIsAt('en-US', 'America/Denver')
    expect(fullDay('2026-11-25')).toBe('Wednesday, November 25')
    expect(moment('2026-11-24T22:15:00Z')).toContain('3:15')
    expect([clock('13:15:00'), clock('09:40:00'), byHalves()]).toEqual(['1:15\u00a0PM', '9:40\u00a0AM', true])
    schoolIsAt('en-GB', 'UTC')
    expect([clock('13:15:00'), byHalves()]).toEqual(['13:15', false])
  })
})
