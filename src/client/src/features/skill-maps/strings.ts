import { graphlib, layout } from '@dagrejs/dagre'
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
 * A string of beads for each strand, so that whatever a skill needs hangs to its left. How far to the right a bead hangs is its layer in
 * the layout library's sense; the beads of a strand follow each other on their string in the order in which they come.
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

function layersOf(skills: readonly Skill[]): Map<string, number> {
  const graph = new graphlib.Graph()
  // Links are laid from a skill to what it needs: the library puts each as near to those as it can, and so as far to the left.
  graph.setGraph({ rankdir: 'RL', ranksep: 1, nodesep: 1, ranker: 'longest-path' })
  graph.setDefaultEdgeLabel(() => ({}))
  const last = new Map<string, string>()
  for (const skill of skills) {
    graph.setNode(skill.id, { width: 1, height: 1 })
    for (const need of skill.needs) graph.setEdge(skill.id, need)
    // Skills come in teaching order, so a strand's string never runs against what its beads need.
    const before = last.get(skill.strand)
    if (before) graph.setEdge(skill.id, before)
    last.set(skill.strand, skill.id)
  }
  layout(graph)
  const places = [...new Set(skills.map((s) => Math.round(graph.node(s.id).x ?? 0)))].sort((a, b) => a - b)
  return new Map(skills.map((s) => [s.id, places.indexOf(Math.round(graph.node(s.id).x ?? 0))]))
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
