import { supports } from '@/ui/marks'
import { t } from '@/app/language'

/** A key and what it does. */
export interface Key {
  key: string
  does: string
}

/** The same on every page. */
export const everywhere: Key[] = [
  { key: '/', does: t('Find a child, a skill, an activity, a mat, a page') },
  { key: '?', does: t('Show these keys') },
  { key: 'Esc', does: t('Close what lies on top') },
]

const recording: Key[] = supports.map((s) => ({ key: s.key.toUpperCase(), does: s.label }))
const arrows = (does: string): Key[] => [{ key: '← → ↑ ↓', does }]

/** Of single pages, by their route. A letter that records is the same wherever something is recorded. */
export const ofPage: Record<string, Key[]> = {
  record: [{ key: '1 … 9', does: t('Pick the child in that row') }, ...recording],
  anyone: recording,
  check: recording,
  class: arrows(t('Go from mark to mark; Enter opens one')),
  map: arrows(t('Go from skill to skill; Enter opens one')),
  year: [{ key: '← →', does: t('Move the lesson in hand by a day') }],
  term: [{ key: '← →', does: t('Move the lesson in hand by a day') }],
}
