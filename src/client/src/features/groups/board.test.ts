import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/app/api/client'
import {
  askOf, chosenOf, differences, letGoOf, locksIn, moveChild, noLocks, placeOf, toggleAim, toggleKept, toggleSeat, type View,
} from './board' // prettier-ignore

const group = (slotId: number, run: boolean, ...ids: number[]): Schemas['GroupView'] => ({
  slot: { slotId, day: '2026-11-30', start: '09:40:00', minutes: 15, adult: '', where: '' },
  skill: `see.to-${slotId}`,
  short: `See to ${slotId}`,
  iCan: '',
  activity: '',
  reason: '',
  sessionId: null,
  run,
  children: ids.map((id) => ({ id, name: `Child ${id}`, reason: 'ready', strength: null })),
})
const view = (...groups: Schemas['GroupView'][]) =>
  ({
    groups,
    unplaced: [{ id: 9, name: 'Child 9', reason: '', strength: null }],
    changes: [],
    conflict: [],
  }) as unknown as View
const ids = (v: View) => v.groups.map((g) => g.children.map((c) => c.id))
const wish = (key: string, more: Partial<Schemas['WishView']> = {}): Schemas['WishView'] => ({
  key,
  sentence: '',
  childId: null,
  slotId: null,
  day: null,
  ...more,
})

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
      { slotId: 2, day: '2026-11-30', skill: 'see.to-2', children: [3] },
    ])
  })
})

describe('locks', () => {
  const board = view(group(1, true, 1), group(2, false, 3), group(3, false, 4, 5))
  const [second, third] = [placeOf(board.groups[1]!.slot), placeOf(board.groups[2]!.slot)]

  it('become a question that is read off the board', () => {
    let locks = toggleSeat(noLocks(), 3, second)
    locks = toggleAim(toggleKept(locks, third), second)
    expect(askOf(board, locks)).toEqual({
      seats: [{ childId: 3, slotId: 2, day: '2026-11-30' }],
      aims: [{ skill: 'see.to-2', slotId: 2, day: '2026-11-30' }],
      kept: [{ slotId: 3, day: '2026-11-30', skill: 'see.to-3', children: [4, 5] }],
      turns: [],
      work: [],
      letGo: [],
      without: [],
    })
    expect(locksIn(locks)).toBe(3)
    expect(locksIn(toggleSeat(toggleAim(toggleKept(locks, third), second), 3, second))).toBe(0)
    expect(toggleSeat(locks, 3, third).seats).toEqual({ 3: third })
  })
  it('are undone where a conflict names them; other wishes do not count this time', () => {
    const locks = {
      ...noLocks(),
      seats: { 3: second },
      aims: [second],
      turns: [{ id: 4, name: '' }],
      work: [{ childId: 5, skill: 'x' }],
    }
    expect(letGoOf(locks, wish('seat-3-0', { childId: 3, slotId: 2, day: '2026-11-30' })).seats).toEqual({})
    expect(letGoOf(locks, wish('aim-x-0', { slotId: 2, day: '2026-11-30' })).aims).toEqual([])
    expect(letGoOf(locks, wish('turn-4', { childId: 4 })).turns).toEqual([])
    expect(letGoOf(locks, wish('work-5-x', { childId: 5 })).work).toEqual([])
    const kept = letGoOf(locks, wish('apart-3-4'))
    expect([kept.letGo.map((w) => w.key), locksIn(kept)]).toEqual([['apart-3-4'], 4])
  })
})

it('tells two sets apart by the children whose aim differs', () => {
  const found = differences(
    view(group(1, false, 1, 2), group(2, false, 3)),
    view(group(1, false, 2), group(2, false, 3, 4)),
  )
  expect(found.map((d) => [d.id, d.one, d.other])).toEqual([
    [1, 'See to 1', null],
    [4, null, 'See to 2'],
  ])
})
