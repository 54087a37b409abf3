import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { columnsOf, fitOnPaper, inNeed, inOrderOf, rowsOf } from './columns'

const skill = (id: string, when: Schemas['Season'] = 'Autumn'): Schemas['GridSkill'] => ({
  id,
  strand: id.split('.')[0]!,
  short: id,
  iCan: '',
  when,
})
const mark = (strength: number, lookAgain = false, ready = false, inferred = false): Schemas['GridMark'] => ({
  strength,
  lookAgain,
  ready,
  inferred,
})
const grid = (...children: Schemas['GridMark'][][]): Schemas['Grid'] => ({
  class: 'Rowan',
  season: 'Autumn',
  strands: [],
  skills: [skill('count.a'), skill('count.b'), skill('see.c', 'Spring')],
  children: children.map((marks, id) => ({ id, name: `${id}`, away: id === 1, marks })),
  groups: [],
})
const any = { all: false, season: '', folded: new Set<string>() }
const ids = (columns: { skill: { id: string } }[]) => columns.map((c) => c.skill.id)

describe('columns of the grid', () => {
  it('leaves out what nobody has begun and what everybody is secure in', () => {
    expect(ids(columnsOf(grid([mark(4), mark(2), mark(0)], [mark(5), mark(0), mark(0)]), any))).toEqual(['count.b'])
  })
  it('keeps what somebody is ready for or likely has, and secure skills that are due another look', () => {
    expect(ids(columnsOf(grid([mark(4, true), mark(0), mark(0, false, true)]), any))).toEqual(['count.a', 'see.c'])
    expect(ids(columnsOf(grid([mark(0), mark(0, false, false, true), mark(0)]), any))).toEqual(['count.b'])
  })
  it('shows everything on request and marks where a strand begins', () => {
    const all = columnsOf(grid([mark(0), mark(0), mark(0)]), { ...any, all: true })
    expect(all.map((c) => c.first)).toEqual([true, false, true])
  })
  it('shows one season only', () => {
    expect(ids(columnsOf(grid([mark(1), mark(1), mark(1)]), { ...any, season: 'Spring' }))).toEqual(['see.c'])
  })
  it('leaves one column of a folded strand', () => {
    const folded = columnsOf(grid([mark(1), mark(1), mark(1)]), { ...any, folded: new Set(['count']) })
    expect(folded.map((c) => c.index)).toEqual([-1, 2])
  })
})

describe('the grid on paper', () => {
  it('is never wider than the page, and a small one keeps its size', () => {
    expect(fitOnPaper(20)).toBe(1)
    for (const columns of [50, 76, 139]) expect((120 + 21 * columns) * fitOnPaper(columns)).toBeCloseTo(1054)
  })
})

describe('rows of the grid', () => {
  const three = grid([mark(3, true)], [mark(4)], [mark(4, true), mark(3, true)])
  it('counts what is to be looked at again, and puts most of it first', () => {
    expect(inNeed(three.children[2]!)).toBe(2)
    const rows = rowsOf([{ classId: 1, grid: three }], { byNeed: true, group: undefined, present: false })
    expect(rows.map((r) => r.id)).toEqual([2, 0, 1])
  })
  it('shows a group, or who is here', () => {
    const group = { sessionId: 1, day: '2026-11-25', short: '', children: [1, 2] }
    const rows = (present: boolean) => rowsOf([{ classId: 1, grid: three }], { byNeed: false, group, present })
    expect(rows(false).map((r) => r.id)).toEqual([1, 2])
    expect(rows(true).map((r) => r.id)).toEqual([2])
  })
  it('lays another class’s marks in the order of the first one’s skills', () => {
    const other = { ...grid([mark(1), mark(2), mark(3)]), skills: [skill('see.c'), skill('count.a'), skill('own.x')] }
    const laid = inOrderOf(three.skills, other)
    expect(laid.children[0]!.marks.map((m) => m.strength)).toEqual([2, 0, 1])
  })
})
