import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import { chosenOf, moveChild } from './moves'

const group = (slotId: number, run: boolean, ...ids: number[]): Schemas['GroupView'] => ({
  slot: { slotId, day: '2026-11-30', start: '09:40:00', minutes: 15, adult: '', where: '' },
  skill: 'see.to-3',
  short: '',
  iCan: '',
  activity: '',
  reason: '',
  sessionId: null,
  run,
  children: ids.map((id) => ({ id, name: `Child ${id}`, reason: 'ready' })),
})
const view = (...groups: Schemas['GroupView'][]) =>
  ({
    groups,
    unplaced: [{ id: 9, name: 'Child 9', reason: '' }],
    changes: [],
    wishes: [],
  }) as unknown as Schemas['GroupsView']
const ids = (v: Schemas['GroupsView']) => v.groups.map((g) => g.children.map((c) => c.id))

describe('moving a child by hand', () => {
  it('counts only the tables that can still change', () => {
    const after = moveChild(
      view(group(1, true, 1, 2), group(2, false, 3), group(3, false, 4)),
      { id: 4, name: 'Child 4' },
      0,
      'why',
    )
    expect(ids(after)).toEqual([[1, 2], [3, 4], []])
    expect(after.groups[1]!.children[1]!.reason).toBe('why')
  })
  it('takes a child out of all groups, and back in', () => {
    const out = moveChild(view(group(1, false, 1, 2)), { id: 2, name: 'Child 2' }, null, '')
    expect(out.unplaced.map((c) => c.id)).toEqual([9, 2])
    const back = moveChild(out, { id: 9, name: 'Child 9' }, 0, '')
    expect([ids(back), back.unplaced.map((c) => c.id)]).toEqual([[[1, 9]], [2]])
  })
  it('sends only what can be decided', () => {
    expect(chosenOf(view(group(1, true, 1), group(2, false, 3)))).toEqual([
      { slotId: 2, day: '2026-11-30', skill: 'see.to-3', children: [3] },
    ])
  })
})
