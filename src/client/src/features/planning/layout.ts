import type { Schemas } from '@/app/api/client'
import { t } from '@/app/language'

type Lesson = Schemas['LessonView']
type Week = Schemas['PlanWeek']

export interface Bead {
  lesson: Lesson
  /** Across the string, in days from its beginning. */
  x: number
  /** In which strand's thread, from the top. */
  row: number
  /** Beads of one strand on one day lie under each other. */
  under: number
}

/** A lesson's name in its plan. */
export const nameOf = (l: { skill: string; number: number }) => `${l.skill}/${l.number}`
/** A bead's name: a skill may have been taught once more with the same number. */
export const keyOf = (l: Lesson) => `${nameOf(l)}/${l.day}`

/** The days of a string, from the Monday of its first week on, five a week. */
export const daysOf = (weeks: Week[]) => weeks.flatMap((w) => w.days.map((d) => d.day))

/** Where each lesson's bead lies; lessons outside the weeks have none. */
export function beadsOf(lessons: Lesson[], weeks: Week[], strands: { id: string }[]): Bead[] {
  const at = new Map(daysOf(weeks).map((day, i) => [day, i]))
  const rows = new Map(strands.map((s, i) => [s.id, i]))
  const taken = new Map<string, number>()
  return lessons.flatMap((lesson) => {
    const [x, row] = [at.get(lesson.day), rows.get(lesson.strand)]
    if (x === undefined || row === undefined) return []
    const key = `${x}/${row}`
    const under = taken.get(key) ?? 0
    taken.set(key, under + 1)
    return [{ lesson, x, row, under }]
  })
}

/** Runs of weeks that belong to one term: name and how many. */
export function termsOf(weeks: Week[]) {
  const terms: { name: string; first: number; count: number }[] = []
  weeks.forEach((week, i) => {
    const last = terms[terms.length - 1]
    if (last && last.name === (week.term ?? '')) last.count++
    else terms.push({ name: week.term ?? '', first: i, count: 1 })
  })
  return terms
}

/** The day under a point of the string: `share` of its width from the left. */
export function dayAt(weeks: Week[], share: number): string | undefined {
  const days = daysOf(weeks)
  return days[Math.min(days.length - 1, Math.max(0, Math.floor(share * days.length)))]
}

/** What happens if a lesson is let go over a day: said before the drop. */
export function verdictOf(price: Schemas['DayPriceView'] | undefined) {
  if (!price) return { kind: 'refused' as const, words: t('No school, or past.') }
  if (price.refused) return { kind: 'refused' as const, words: price.refused }
  const change = price.with ? t('Changes places with “{with}”.', { with: price.with }) : t('The place is free.')
  return price.advice.length
    ? { kind: 'advice' as const, words: price.advice.join(' ') }
    : { kind: 'open' as const, words: change }
}
