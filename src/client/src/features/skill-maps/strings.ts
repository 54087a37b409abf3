import type { Schemas } from '@/app/api/client'

type Skill = Pick<Schemas['MapSkill'], 'id' | 'strand' | 'needs'>

export const pitch = 74
export const laneHeight = 92
const edge = 52
const top = 34

export interface Bead {
  id: string
  x: number
  y: number
}

export interface Thread {
  key: string
  from: string
  to: string
  path: string
}

export interface Strings {
  beads: Map<string, Bead>
  threads: Thread[]
  lanes: { strand: string; y: number; path: string }[]
  width: number
  height: number
}

/**
 * A string of beads for each strand, so that whatever a skill needs hangs to its left, each as far to the left as that allows; the beads of a strand follow each other
 * on their string in the order in which they come.
 * @param skills In teaching order.
 */
export function hangUp(strands: readonly string[], skills: readonly Skill[]): Strings {
  const layers = layersOf(skills)
  const at = (skill: Skill) => edge + (layers.get(skill.id) ?? 0) * pitch
  const beads = new Map<string, Bead>()
  for (const skill of skills)
    beads.set(skill.id, { id: skill.id, x: at(skill), y: top + strands.indexOf(skill.strand) * laneHeight })
  const lanes = strands.map((strand, i) => {
    const xs = skills.filter((s) => s.strand === strand).map(at)
    const y = top + i * laneHeight
    return { strand, y, path: xs.length > 0 ? `M ${Math.min(...xs) - 40} ${y} L ${Math.max(...xs) + 40} ${y}` : '' }
  })
  const threads = skills.flatMap((skill) =>
    skill.needs.flatMap((need) => {
      const [from, to] = [beads.get(need), beads.get(skill.id)]
      return from && to ? [{ key: `${need}>${skill.id}`, from: need, to: skill.id, path: curve(from, to) }] : []
    }),
  )
  const width = Math.max(0, ...[...beads.values()].map((b) => b.x)) + edge + 20
  return { beads, threads, lanes, width, height: top + strands.length * laneHeight }
}

// Skills come in teaching order: what a bead needs, and the bead before it on its string, hang already.
function layersOf(skills: readonly Skill[]): Map<string, number> {
  const layers = new Map<string, number>()
  const last = new Map<string, string>()
  for (const skill of skills) {
    const left = [...skill.needs, last.get(skill.strand)].map((id) => (id === undefined ? -1 : (layers.get(id) ?? -1)))
    layers.set(skill.id, Math.max(...left) + 1)
    last.set(skill.strand, skill.id)
  }
  return layers
}

// Within a string a thread bows over the beads between; to another string it hangs in an easy curve.
function curve(from: Bead, to: Bead): string {
  if (from.y === to.y) {
    const rise = Math.min(30, 6 + Math.abs(to.x - from.x) / 9)
    return `M ${from.x} ${from.y} Q ${(from.x + to.x) / 2} ${from.y - rise * 2} ${to.x} ${to.y}`
  }
  const middle = (from.x + to.x) / 2
  return `M ${from.x} ${from.y} C ${middle} ${from.y} ${middle} ${to.y} ${to.x} ${to.y}`
}
