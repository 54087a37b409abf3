import { describe, expect, it } from 'vitest'
import { beadsOf, dayAt, daysOf, termsOf, verdictOf } from './layout'

const day = (date: string) => ({ day: date, school: true, places: 1, different: null })
const week = (monday: string, term: string) => {
  const at = (i: number) => new Date(Date.parse(`${monday}T12:00:00Z`) + i * 86_400_000).toISOString().slice(0, 10)
  return { monday, term, days: [0, 1, 2, 3, 4].map((i) => day(at(i))) }
}
const weeks = [week('2026-11-23', 'Lantern'), week('2026-11-30', 'Lantern'), week('2027-01-18', 'Kite')]
const lesson = (skill: string, strand: string, date: string, number = 1) => ({
  skill,
  short: skill,
  strand,
  number,
  of: 2,
  stage: 'Introduce' as const,
  how: '',
  day: date,
  place: 0,
  reason: '',
  pinned: false,
  note: '',
  past: false,
  given: false,
})
const strands = [{ id: 'count' }, { id: 'see' }]

describe('a year as a string', () => {
  it('has five days a week and nothing for the weeks between terms', () => {
    expect(daysOf(weeks)).toHaveLength(15)
    expect(daysOf(weeks)[10]).toBe('2027-01-18')
  })

  it('puts each bead on its strand’s thread at its day, and leaves out what lies elsewhere', () => {
    const beads = beadsOf(
      [
        lesson('a', 'see', '2026-11-24'),
        lesson('b', 'count', '2027-01-19'),
        lesson('c', 'count', '2027-05-01'),
        lesson('d', 'other', '2026-11-24'),
      ],
      weeks,
      strands,
    )
    expect(beads.map((b) => [b.lesson.skill, b.x, b.row])).toEqual([
      ['a', 1, 1],
      ['b', 11, 0],
    ])
  })

  it('lays two lessons of one strand on one day under each other', () => {
    const beads = beadsOf([lesson('a', 'see', '2026-11-24'), lesson('b', 'see', '2026-11-24')], weeks, strands)
    expect(beads.map((b) => b.under)).toEqual([0, 1])
  })

  it('gathers weeks into terms', () => {
    expect(termsOf(weeks)).toEqual([
      { name: 'Lantern', first: 0, count: 2 },
      { name: 'Kite', first: 2, count: 1 },
    ])
  })

  it('finds the day under a point, and the ends beyond them', () => {
    expect(dayAt(weeks, 0)).toBe('2026-11-23')
    expect(dayAt(weeks, 0.5)).toBe('2026-12-02')
    expect(dayAt(weeks, 1.2)).toBe('2027-01-22')
    expect(dayAt(weeks, -0.2)).toBe('2026-11-23')
    expect(dayAt([], 0.5)).toBeUndefined()
  })
})

describe('what a drop would mean', () => {
  const price = { day: '2026-11-24', refused: null, advice: [], with: null }
  it('is said before it happens', () => {
    expect(verdictOf(price)).toEqual({ kind: 'open', words: 'The place is free.' })
    expect(verdictOf({ ...price, with: 'Say to ten' }).words).toBe('Changes places with “Say to ten”.')
    expect(verdictOf({ ...price, advice: ['Too early.', 'Too far.'] })).toEqual({
      kind: 'advice',
      words: 'Too early. Too far.',
    })
    expect(verdictOf({ ...price, refused: 'Snow: there is no lesson that day.' }).kind).toBe('refused')
    expect(verdictOf(undefined).kind).toBe('refused')
  })
})
