import type { Schemas } from '@/app/api/client'

export type View = Schemas['GroupsView']
export type Chosen = Schemas['ChosenGroup']
type Ask = Schemas['GroupsAsk']
type Part = Schemas['PartView']
type Wish = Schemas['WishView']

/** A place in the week by one word. */
export const placeOf = (slot: { slotId: number; day: string }) => `${slot.day} ${slot.slotId}`

/** Of the groups of a week those of one part. */
export const within = (view: View, part: Part): View => ({
  ...view,
  groups: view.groups.filter((g) => g.slot.day >= part.from && g.slot.day <= part.until),
})

/** What has been locked on the board, by place and child; what it means follows from the groups that stand there. */
export interface Locks {
  seats: Record<number, string>
  aims: string[]
  kept: string[]
  turns: { id: number; name: string }[]
  work: Schemas['WorkLock'][]
  letGo: Wish[]
  without: { id: number; name: string }[]
}
export const noLocks = (): Locks => ({ seats: {}, aims: [], kept: [], turns: [], work: [], letGo: [], without: [] })

export const locksIn = (locks: Locks) =>
  Object.keys(locks.seats).length + locks.aims.length + locks.kept.length + locks.turns.length + locks.work.length

/** What the server is told about the tables that can still change. */
export function chosenOf(view: View): Chosen[] {
  return view.groups.filter((g) => !g.run).map(chosen)
}
const chosen = (g: Schemas['GroupView']): Chosen => ({
  slotId: g.slot.slotId,
  day: g.slot.day,
  skill: g.skill,
  children: g.children.map((c) => c.id),
})

/** The locks as a question, read off the groups as they stand. */
export function askOf(view: View | undefined, locks: Locks): Omit<Ask, 'part' | 'beside'> {
  const open = view?.groups.filter((g) => !g.run) ?? []
  const place = (key: string) => ({ day: key.split(' ')[0]!, slotId: Number(key.split(' ')[1]) })
  return {
    seats: Object.entries(locks.seats).map(([childId, key]) => ({ childId: Number(childId), ...place(key) })),
    aims: open
      .filter((g) => locks.aims.includes(placeOf(g.slot)))
      .map((g) => ({ skill: g.skill, slotId: g.slot.slotId, day: g.slot.day })),
    kept: open.filter((g) => locks.kept.includes(placeOf(g.slot))).map(chosen),
    turns: locks.turns.map((c) => c.id),
    work: locks.work,
    letGo: locks.letGo.map((w) => w.key),
    without: locks.without.map((c) => c.id),
  }
}

const toggled = <T>(list: T[], item: T) => (list.includes(item) ? list.filter((x) => x !== item) : [...list, item])

export const toggleAim = (locks: Locks, place: string): Locks => ({ ...locks, aims: toggled(locks.aims, place) })
export const toggleKept = (locks: Locks, place: string): Locks => ({ ...locks, kept: toggled(locks.kept, place) })

export function toggleSeat(locks: Locks, child: number, place: string): Locks {
  const { [child]: old, ...seats } = locks.seats
  return { ...locks, seats: old === place ? seats : { ...seats, [child]: place } }
}

/** Lets go of one wish of a conflict: a lock is undone, anything else does not count this time. */
export function letGoOf(locks: Locks, wish: Wish): Locks {
  const kind = wish.key.split('-')[0]
  const place = wish.slotId && wish.day ? placeOf({ slotId: wish.slotId, day: wish.day }) : ''
  if (kind === 'seat') {
    const seats = { ...locks.seats }
    delete seats[wish.childId!]
    return { ...locks, seats }
  }
  if (kind === 'aim') return { ...locks, aims: locks.aims.filter((a) => a !== place) }
  if (kind === 'turn') return { ...locks, turns: locks.turns.filter((c) => c.id !== wish.childId) }
  if (kind === 'work') return { ...locks, work: locks.work.filter((w) => w.childId !== wish.childId) }
  return { ...locks, letGo: [...locks.letGo, wish] }
}

/** The groups with a child at another table (by its place among those that can change), or at none. */
export function moveChild(view: View, child: { id: number; name: string }, to: number | null, reason: string): View {
  // What the child has of another aim is not known here.
  const placed = { id: child.id, name: child.name, reason, strength: null }
  let open = -1
  const groups = view.groups.map((group) => {
    if (group.run) return group
    open += 1
    const others = group.children.filter((c) => c.id !== child.id)
    return {
      ...group,
      children: open === to ? [...others, placed].sort((a, b) => a.name.localeCompare(b.name)) : others,
    }
  })
  const unplaced = view.unplaced.filter((c) => c.id !== child.id)
  return { ...view, groups, unplaced: to === null ? [...unplaced, placed] : unplaced }
}

export interface Difference {
  id: number
  name: string
  one: string | null
  other: string | null
}

/** Children whose aim differs between two sets of groups, by name. */
export function differences(one: View, other: View): Difference[] {
  const aims = (view: View) =>
    new Map(view.groups.flatMap((g) => g.children.map((c) => [c.id, { name: c.name, aim: g.short }] as const)))
  const [first, second] = [aims(one), aims(other)]
  return [...new Set([...first.keys(), ...second.keys()])]
    .map((id) => ({
      id,
      name: (first.get(id) ?? second.get(id))!.name,
      one: first.get(id)?.aim ?? null,
      other: second.get(id)?.aim ?? null,
    }))
    .filter((d) => d.one !== d.other)
    .sort((a, b) => a.name.localeCompare(b.name))
}
