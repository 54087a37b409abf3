import type { Schemas } from '@/app/api/client'

export interface Column {
  skill: Schemas['GridSkill']
  /** Place in the grid's list of skills, and so in every child's marks; -1 for a folded strand, which has no marks of its own. */
  index: number
  /** First of its strand. */
  first: boolean
}

export interface Wanted {
  /** Skills nobody has begun, and those that everybody is secure in, as well. */
  all: boolean
  /** Only skills of this season; empty for any. */
  season: string
  /** Strands that are folded away. */
  folded: ReadonlySet<string>
}

/** The columns to show: skills that are alive now, or all; of one season; a folded strand leaves one narrow column. */
export function columnsOf(grid: Schemas['Grid'], wanted: Wanted): Column[] {
  const shown = grid.skills
    .map((skill, index) => ({ skill, index }))
    .filter(({ skill }) => !wanted.season || skill.when === wanted.season)
    .filter(({ index }) => wanted.all || isAlive(grid.children.map((c) => c.marks[index]!)))
  const columns = shown.flatMap((column, i) => {
    const first = i === 0 || shown[i - 1]!.skill.strand !== column.skill.strand
    if (!wanted.folded.has(column.skill.strand)) return [{ ...column, first }]
    return first ? [{ ...column, index: -1, first }] : []
  })
  return columns
}

function isAlive(marks: Schemas['GridMark'][]): boolean {
  return (
    marks.some((m) => m.strength > 0 || m.ready || m.inferred) && !marks.every((m) => m.strength >= 4 && !m.lookAgain)
  )
}

/** How much there is to look at with a child again. */
export const inNeed = (child: Schemas['GridChild']) => child.marks.filter((m) => m.lookAgain).length

export type Row = Schemas['GridChild'] & { classId: number; className: string }

/** Children of one class or several, those of a group or without the absent ones, in the order that is wanted. */
export function rowsOf(
  grids: { classId: number; grid: Schemas['Grid'] }[],
  wanted: { byNeed: boolean; group: Schemas['GridGroup'] | undefined; present: boolean },
): Row[] {
  return grids.flatMap(({ classId, grid }) => {
    const rows = grid.children
      .filter((c) => !wanted.present || !c.away)
      .filter((c) => !wanted.group || wanted.group.children.includes(c.id))
      .map((c) => ({ ...c, classId, className: grid.class }))
    return wanted.byNeed ? rows.sort((a, b) => inNeed(b) - inNeed(a)) : rows
  })
}

/** Marks of another class in the order of the first one's skills: the schools' maps may differ. */
export function inOrderOf(skills: Schemas['GridSkill'][], grid: Schemas['Grid']): Schemas['Grid'] {
  if (grid.skills === skills) return grid
  const at = new Map(grid.skills.map((s, i) => [s.id, i]))
  const none: Schemas['GridMark'] = { strength: 0, lookAgain: false, ready: false, inferred: false }
  return {
    ...grid,
    skills,
    children: grid.children.map((c) => ({ ...c, marks: skills.map((s) => c.marks[at.get(s.id) ?? -1] ?? none) })),
  }
}

/** By how much a grid of so many columns is made smaller to fit on a sheet of A4 on its side (279 mm between the margins). */
export function fitOnPaper(columns: number): number {
  const [page, names, column] = [1054, 120, 21]
  return Math.min(1, page / (names + columns * column))
}
