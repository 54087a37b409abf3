import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { columnsOf, inNeed } from './columns'

const skill = (id: string): Schemas['GridSkill'] => ({
  id,
  strand: id.split('.')[0]!,
  short: id,
  iCan: '',
  when: 'Autumn',
})
const mark = (strength: number, lookAgain = false, ready = false): Schemas['GridMark'] => ({
  strength,
  lookAgain,
  ready,
})
const grid = (...children: Schemas['GridMark'][][]): Schemas['Grid'] => ({
  strands: [],
  skills: [skill('count.a'), skill('count.b'), skill('see.c')],
  children: children.map((marks, id) => ({ id, name: `${id}`, away: false, marks })),
})

describe('columns of the grid', () => {
  it('leaves out what nobody has begun and what everybody is secure in', () => {
    const shown = columnsOf(grid([mark(4), mark(2), mark(0)], [mark(5), mark(0), mark(0)]), false)
    expect(shown.map((c) => c.skill.id)).toEqual(['count.b'])
  })
  it('keeps what somebody is ready for, and secure skills that are due another look', () => {
    const shown = columnsOf(grid([mark(4, true), mark(0), mark(0, false, true)]), false)
    expect(shown.map((c) => c.skill.id)).toEqual(['count.a', 'see.c'])
  })
  it('shows everything on request and marks where a strand begins', () => {
    expect(columnsOf(grid([mark(0), mark(0), mark(0)]), true).map((c) => c.first)).toEqual([true, false, true])
  })
  it('counts what is to be looked at again', () => {
    expect(inNeed(grid([mark(3, true), mark(4), mark(4, true)]).children[0]!)).toBe(2)
  })
})
