/** What is asked of the server, by name. */
type Asked =
  | 'account'
  | 'activities'
  | 'agreement'
  | 'anyone'
  | 'approach'
  | 'baseline'
  | 'card'
  | 'cell'
  | 'check'
  | 'child'
  | 'child-name'
  | 'children'
  | 'column'
  | 'calendar-address'
  | 'coverage'
  | 'devices'
  | 'cupboard'
  | 'first-hour'
  | 'grid'
  | 'group-wishes'
  | 'groups'
  | 'groups-after'
  | 'groups-ahead'
  | 'groups-better'
  | 'groups-company'
  | 'jar'
  | 'look-again'
  | 'map'
  | 'mat'
  | 'mats'
  | 'own-numbers'
  | 'plan-draft'
  | 'plan-fit'
  | 'plan-scope'
  | 'post'
  | 'revision'
  | 'roster'
  | 'school'
  | 'school-children'
  | 'second-step'
  | 'set-out'
  | 'sheet'
  | 'sheets'
  | 'slips'
  | 'story-choices'
  | 'thoughts'
  | 'timetable'
  | 'today'
  | 'traces'
  | 'trail'
  | 'week'
  | 'year-plan'

/**
 * The key under which an answer is kept, and read anew later: its name, the class, then what narrows it down. Without these it means all answers of that
 * name. The only place that spells a key, so that asking and reading anew can't be spelt apart.
 */
export const queryKey = (asked: Asked, ...narrowed: unknown[]) => [asked, ...narrowed] as const

/** Whether a kept answer is one of those. */
export const isOneOf = (query: { queryKey: readonly unknown[] }, ...asked: Asked[]) =>
  asked.includes(query.queryKey[0] as Asked)
