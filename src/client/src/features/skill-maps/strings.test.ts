import { describe, expect, it } from 'vitest'
import { hangUp, laneHeight, pitch } from './strings'

const skill = (id: string, ...needs: string[]) => ({ id, strand: id.split('.')[0]!, needs })

describe('strings of beads', () => {
  const skills = [
    skill('count.a'),
    skill('see.a'),
    skill('count.b', 'count.a'),
    skill('see.b', 'count.b', 'see.a'),
    skill('count.c', 'count.a'),
  ]
  const strings = hangUp(['count', 'see'], skills)

  it('hangs whatever is needed to the left of what needs it', () => {
    for (const thread of strings.threads)
      expect(strings.beads.get(thread.from)!.x).toBeLessThan(strings.beads.get(thread.to)!.x)
    expect(strings.threads).toHaveLength(4)
  })

  it('hangs each as far to the left as that allows', () => {
    const layer = (id: string) => (strings.beads.get(id)!.x - strings.beads.get('count.a')!.x) / pitch
    expect(skills.map((s) => layer(s.id))).toEqual([0, 0, 1, 2, 2])
  })

  it('gives each strand a string of its own, with no two beads in one place', () => {
    const places = [...strings.beads.values()].map((b) => `${b.x}/${b.y}`)
    expect(new Set(places).size).toBe(skills.length)
    expect(strings.beads.get('see.a')!.y - strings.beads.get('count.a')!.y).toBe(laneHeight)
  })

  it('leaves out threads to skills that are not there', () => {
    expect(hangUp(['count'], [skill('count.x', 'gone.y')]).threads).toEqual([])
  })
})
