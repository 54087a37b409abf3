import type { Schemas } from '@/app/api/client'

export interface Column {
  skill: Schemas['GridSkill']
  /** Place in the grid's list of skills, and so in every child's marks. */
  index: number
  /** First of its strand. */
  first: boolean
}

/** All skills, or those that are alive now: somebody has begun it, and not everybody is secure. */
export function columnsOf(grid: Schemas['Grid'], all: boolean): Column[] {
  const shown = grid.skills
    .map((skill, index) => ({ skill, index }))
    .filter(({ index }) => all || isAlive(grid.children.map((c) => c.marks[index]!)))
  return shown.map((column, i) => ({ ...column, first: i === 0 || shown[i - 1]!.skill.strand !== column.skill.strand }))
}

function isAlive(marks: Schemas['GridMark'][]): boolean {
  return marks.some((m) => m.strength > 0 || m.ready) && !marks.every((m) => m.strength >= 4 && !m.lookAgain)
}

/** How much there is to look at with a child again. */
export const inNeed = (child: Schemas['GridChild']) => child.marks.filter((m) => m.lookAgain).length
