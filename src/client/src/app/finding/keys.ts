import { supports } from '@/ui/marks'

/** A key and what it does. */
export interface Key {
  key: string
  does: string
}

/** The same on every page. */
export const everywhere: Key[] = [
  { key: '/', does: 'Find a child, a skill, an activity, a mat, a page' },
  { key: '?', does: 'Show these keys' },
  { key: 'Esc', does: 'Close what lies on top' },
]

const recording: Key[] = supports.map((s) => ({ key: s.key.toUpperCase(), does: s.label }))
const arrows = (does: string): Key[] => [{ key: '← → ↑ ↓', does }]

/** Of single pages, by their route. A letter that records is the same wherever something is recorded. */
export const ofPage: Record<string, Key[]> = {
  record: [{ key: '1 … 9', does: 'Pick the child in that row' }, ...recording],
  anyone: recording,
  check: recording,
  class: arrows('Go from mark to mark; Enter opens one'),
  map: arrows('Go from skill to skill; Enter opens one'),
  year: [{ key: '← →', does: 'Move the lesson in hand by a day' }],
  term: [{ key: '← →', does: 'Move the lesson in hand by a day' }],
}
