import type { Schemas } from '@/app/api/client'

type Proposal = Schemas['GroupsView']

/** What the server is told about the tables that can still change. */
export function chosenOf(view: Proposal): Schemas['ChosenGroup'][] {
  return view.groups
    .filter((g) => !g.run)
    .map((g) => ({ slotId: g.slot.slotId, day: g.slot.day, skill: g.skill, children: g.children.map((c) => c.id) }))
}

/** The proposal with a child at another table (by its place among those that can change), or at none. */
export function moveChild(
  view: Proposal,
  child: { id: number; name: string },
  to: number | null,
  reason: string,
): Proposal {
  const placed = { id: child.id, name: child.name, reason }
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
